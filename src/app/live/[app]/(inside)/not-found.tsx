/** No such address, or a record that is closed: the same. */
export default function NotFound() {
  return (
    <>
      <h1 className="text-xl font-semibold">There is nothing at this address</h1>
      <p className="mt-2 max-w-prose">It may be mistyped, or what was here is gone.</p>
    </>
  );
}
