/** A closed screen, for somebody who is signed in. It says nothing of the screen. */
export default function Forbidden() {
  return (
    <>
      <h1 className="text-xl font-semibold">This page is not open to you</h1>
      <p className="mt-2 max-w-prose">
        If you need it for your work, ask the people who look after this application, and tell them the
        address.
      </p>
    </>
  );
}
