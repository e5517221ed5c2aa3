'use client';

import './globals.css';
import Broken from './error';

/** The same where not even the frame of a page could be drawn. */
export default function AllBroken({ reset }: { reset: () => void }) {
  return (
    <html lang="en">
      <body>
        <Broken reset={reset} />
      </body>
    </html>
  );
}
