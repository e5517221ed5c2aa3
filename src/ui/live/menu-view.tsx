'use client';

import { ClosedView } from './closed-view';
import type { DrawnMenuItem } from './drawn';
import { Ghost } from './ghost';
import { useHost } from './host';

/** The application's menu. The item of the screen that is shown is marked, also by its shape. */
export function MenuView({ items, current }: { items: readonly DrawnMenuItem[]; current: string }) {
  return (
    <nav aria-label="Application menu">
      <MenuItems items={items} current={current} />
    </nav>
  );
}

function MenuItems({ items, current }: { items: readonly DrawnMenuItem[]; current: string }) {
  const host = useHost();
  return (
    <ul className="grid gap-0.5">
      {items.map((item) => (
        <li key={item.id}>
          {item.ghost ? (
            <Ghost id={item.id} name={item.name} ghost={item.ghost} className="px-3 py-1" />
          ) : item.closed ? (
            <ClosedView id={item.id} name={item.name} closed={item.closed} className="px-3 py-1" />
          ) : item.address === undefined ? (
            <span data-element={item.id} className="block px-3 py-1 text-quiet">
              {item.name}
            </span>
          ) : (
            <a
              data-element={item.id}
              href={host.hrefOf(item.address) ?? '#'}
              aria-current={isAt(current, item.address) ? 'page' : undefined}
              className="block border-l-4 border-transparent px-2 py-1 hover:bg-sheet aria-[current]:border-open aria-[current]:bg-open-pale aria-[current]:font-semibold"
              onClick={(event) => {
                if (event.metaKey || event.ctrlKey || event.button !== 0) return;
                event.preventDefault();
                host.go(item.address as string);
              }}
            >
              {item.name}
            </a>
          )}
          {item.items.length > 0 && (
            <div className="ml-3">
              <MenuItems items={item.items} current={current} />
            </div>
          )}
        </li>
      ))}
    </ul>
  );
}

const isAt = (current: string, address: string): boolean =>
  current === address || current.startsWith(`${address}/`);
