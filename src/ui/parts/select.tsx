import type { ComponentProps } from 'react';
import type { Named } from '@/core/model';

interface Option extends Named {
  readonly heading?: string;
  readonly disabled?: boolean;
}

interface Props extends Omit<ComponentProps<'select'>, 'children'> {
  /** What can be chosen; under headings where they have any. */
  readonly options: readonly Option[];
  /** What stands first, for nothing (an empty text). */
  readonly none?: string | undefined;
  readonly onChoose?: (id: string) => void;
}

/** Chooses one of several. */
export const Select = ({ options, none, onChoose, className = '', ...select }: Props) => (
  <select
    {...select}
    {...(onChoose && { onChange: ({ target }) => onChoose(target.value) })}
    className={`field-box ${className}`}
  >
    {none !== undefined && <option value="">{none}</option>}
    {headingsOf(options).map((heading) => {
      const some = options.filter((option) => option.heading === heading).map(optionOf);
      return heading === undefined ? (
        some
      ) : (
        <optgroup key={heading} label={heading}>
          {some}
        </optgroup>
      );
    })}
  </select>
);

const headingsOf = (options: readonly Option[]): readonly (string | undefined)[] => [
  ...new Set(options.map(({ heading }) => heading)),
];

const optionOf = ({ id, name, disabled }: Option) => (
  <option key={id} value={id} disabled={disabled}>
    {name}
  </option>
);
