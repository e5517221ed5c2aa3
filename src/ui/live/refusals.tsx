import { ShouldSee } from './should-see';

/** What stands where a screen is closed to somebody who is signed in; `text` is the builder's. */
export function Refused({ text }: { text?: string | undefined }) {
  return text === undefined ? (
    <>
      <h1 className="text-xl font-semibold">You do not have access to this page</h1>
      <p className="mt-2 max-w-prose">
        If you need it for your work, contact the administrators of this application and give them the address
        of this page.
      </p>
      <ShouldSee />
    </>
  ) : (
    <>
      <h1 className="text-xl font-semibold">You do not have access to this</h1>
      <p className="mt-2 max-w-prose whitespace-pre-wrap">{text}</p>
      <ShouldSee />
    </>
  );
}

/** No such address, or a record that is closed: the same. */
export function NotThere() {
  return (
    <>
      <h1 className="text-xl font-semibold">Page not found</h1>
      <p className="mt-2 max-w-prose">The address may be mistyped, or the page may have been deleted.</p>
      <ShouldSee />
    </>
  );
}

export function NothingOpen() {
  return (
    <>
      <h1 className="text-xl font-semibold">You do not have access to anything here yet</h1>
      <p className="mt-2 max-w-prose">
        You are signed in, but you do not have access to any screen of this application. Ask its
        administrators for the role you need.
      </p>
    </>
  );
}
