import type { ReactNode } from 'react';

/** Where there is nothing yet: what will be here, and how to get there. */
export const EmptyState = ({ title, children }: { title: string; children: ReactNode }) => (
  <div className="mx-auto grid max-w-xl gap-2 px-4 py-10">
    <p className="text-[16px] font-semibold">{title}</p>
    {children}
  </div>
);
