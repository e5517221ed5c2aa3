import type { ComponentProps } from 'react';

interface Props extends Omit<ComponentProps<'input'>, 'type'> {
  readonly onTurn?: (on: boolean) => void;
}

/** A box to tick, with its name beside it. */
export const Checkbox = ({ children, onTurn, className = '', title, ...input }: Props) => (
  <label className={`flex min-h-[24px] items-center gap-1.5 ${className}`} title={title}>
    <input
      {...input}
      {...(onTurn && { onChange: ({ target }) => onTurn(target.checked) })}
      type="checkbox"
      className="size-4 shrink-0 accent-open"
    />
    {children}
  </label>
);
