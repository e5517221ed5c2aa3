'use client';

import { useStateFor } from '../../parts/use-state-for';

/** The address of a pane or of the canvas: any address of the application can be typed. */
export function AddressLine({ address, onGo }: { address: string; onGo: (address: string) => void }) {
  const [text, setText] = useStateFor(address, `/${address}`);
  return (
    <input
      aria-label="Address in the application"
      spellCheck={false}
      className="min-w-0 flex-1 rounded-sm border border-rule bg-paper px-2 py-0.5 font-mono text-[12px]"
      value={text}
      onChange={(event) => setText(event.target.value)}
      onKeyDown={(event) => event.key === 'Enter' && onGo(text.replace(/^\/+/, ''))}
    />
  );
}
