'use client';

import { Switch } from 'radix-ui';

/** A switch with its name beside it. */
export function Toggle({
  label,
  hint,
  on,
  onChange,
}: {
  label: string;
  hint: string;
  on: boolean;
  onChange: (on: boolean) => void;
}) {
  return (
    <label className="flex cursor-pointer items-center gap-1.5" title={hint}>
      {label}
      <Switch.Root
        checked={on}
        onCheckedChange={onChange}
        className="h-4 w-7 rounded-full border border-edge bg-paper p-px data-[state=checked]:border-open data-[state=checked]:bg-open"
      >
        <Switch.Thumb className="block size-3 rounded-full bg-edge data-[state=checked]:translate-x-3 data-[state=checked]:bg-white" />
      </Switch.Root>
    </label>
  );
}
