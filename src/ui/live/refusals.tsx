import { ShouldSee } from './should-see';

/** What stands where a screen is closed to somebody who is signed in; `text` is the builder's. */
export function Refused({ text }: { text?: string | undefined }) {
  return text === undefined ? (
    <>
      <h1 className="text-xl font-semibold">This page is not open to you</h1>
      <p className="mt-2 max-w-prose">
        If you need it for your work, ask the people who look after this application, and tell them the
        address.
      </p>
      <ShouldSee />
    </>
  ) : (
    <>
      <h1 className="text-xl font-semibold">This is not open to you</h1>
      <p className="mt-2 max-w-prose whitespace-pre-wrap">{text}</p>
      <ShouldSee />
    </>
  );
}

/** No such address, or a record that is closed: the same. */
export function NotThere() {
  return (
    <>
      <h1 className="text-xl font-semibold">There is nothing at this address</h1>
      <p className="mt-2 max-w-prose">It may be mistyped, or what was here is gone.</p>
      <ShouldSee />
    </>
  );
}

export function NothingOpen() {
  return (
    <>
      <h1 className="text-xl font-semibold">Nothing is open to you here yet</h1>
      <p className="mt-2 max-w-prose">
        You are signed in, but no screen of this application is open to you. Ask the people who look after it
        for the role that you need.
      </p>
    </>
  );
}
