'use client';

import { Info } from 'lucide-react';
import { usePathname, useRouter } from 'next/navigation';
import { Popover, Toast } from 'radix-ui';

const LINK =
  'block border-l-4 border-transparent px-2 py-1 hover:bg-sheet aria-[current]:border-open aria-[current]:bg-open-pale aria-[current]:font-semibold';

/** What stands around every page: its name, its menu, who is signed in. */
export function Frame({ name, person, menu, children }) {
  const router = useRouter();
  const path = usePathname();
  const go = (event) => {
    event.preventDefault();
    router.push(event.currentTarget.getAttribute('href'));
  };
  const draw = (items) => (
    <ul className="grid gap-0.5">
      {items.map((item) => (
        <li key={item.id}>
          {item.closed ? (
            <Popover.Root>
              <Popover.Trigger
                type="button"
                data-element={item.id}
                className="inline-flex items-center gap-1.5 text-left text-quiet hover:text-ink px-3 py-1"
              >
                {item.name}
                <Info size={14} aria-hidden />
              </Popover.Trigger>
              <Popover.Portal>
                <Popover.Content>{item.closed}</Popover.Content>
              </Popover.Portal>
            </Popover.Root>
          ) : item.address ? (
            <a
              data-element={item.id}
              href={`/${item.address}`}
              aria-current={path.startsWith(`/${item.address}`) ? 'page' : undefined}
              className={LINK}
              onClick={go}
            >
              {item.name}
            </a>
          ) : (
            <span data-element={item.id} className="block px-3 py-1 text-quiet">
              {item.name}
            </span>
          )}
          {item.items && <div className="ml-3">{draw(item.items)}</div>}
        </li>
      ))}
    </ul>
  );
  return (
    <Toast.Provider>
      <header className="flex items-center gap-4 border-b border-edge bg-paper px-5 py-2">
        <span className="font-semibold">{name}</span>
        <span className="ml-auto text-quiet">
          <a className="link" href="/account" title="Your account and roles">
            {person}
          </a>
        </span>
        <button type="button" className="button" onClick={() => fetch('/api/session', { method: 'DELETE' })}>
          Sign out
        </button>
      </header>
      <div className="grid min-h-[calc(100vh-49px)] grid-cols-[190px_1fr]">
        <div className="border-r border-rule bg-paper py-3">
          <nav aria-label="Application menu">{draw(menu)}</nav>
        </div>
        <main className="max-w-6xl min-w-0 p-5">{children}</main>
      </div>
      <Toast.Viewport className="fixed right-5 bottom-5 z-50 flex w-96 max-w-full flex-col gap-2" />
    </Toast.Provider>
  );
}
