'use client';

import { useEffect, useState } from 'react';
import { ask, send } from '../../live/host';
import { Window } from '../../parts/window';
import { useLook } from './context';

interface Builder {
  readonly id: string;
  readonly name: string;
  readonly role: string;
  readonly live: 'none' | 'read' | 'change';
}

/** The owner gives builders the right to look at live records, and to keep what they change there. */
export function LiveRights({ onClose }: { onClose: () => void }) {
  const { api, tell } = useLook();
  const [builders, setBuilders] = useState<readonly Builder[]>();
  useEffect(() => {
    void ask<{ builders: Builder[] }>(`${api}/builders`, { method: 'GET' }).then(
      (answer) => answer.ok && setBuilders(answer.value.builders),
    );
  }, [api]);
  const give = (id: string, live: Builder['live']): void => {
    setBuilders((now) => now?.map((one) => (one.id === id ? { ...one, live } : one)));
    void send('PUT', `${api}/builders`, { builder: id, live }).then((answer) =>
      tell(answer.ok ? 'Given. It holds from the next page that they load.' : answer.detail),
    );
  };
  return (
    <Window title="Who may look at live records" open onOpenChange={(open) => !open && onClose()}>
      <p className="mb-3">
        Builders look at sample records. Whoever may look at the live ones sees real people’s data: each page
        is in the audit trail.
      </p>
      <ul className="grid gap-2">
        {builders?.map((one) => (
          <li key={one.id}>
            <label className="grid grid-cols-[1fr_12rem] items-center gap-2">
              <span>
                {one.name} <span className="text-quiet">{one.role}</span>
              </span>
              <select
                className="field-box"
                value={one.live}
                onChange={(event) => give(one.id, event.target.value as Builder['live'])}
              >
                <option value="none">sample records only</option>
                <option value="read">live ones, to read</option>
                <option value="change">live ones, and keep changes</option>
              </select>
            </label>
          </li>
        ))}
      </ul>
    </Window>
  );
}
