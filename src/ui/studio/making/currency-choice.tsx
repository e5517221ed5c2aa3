'use client';

import { currencies } from './manners';

interface Props {
  readonly value: string;
  readonly onChange: (currency: string) => void;
}

/** In which currency the application tells money. */
export function CurrencyChoice({ value, onChange }: Props) {
  return (
    <label className="w-64">
      <span className="text-quiet">Money is told in</span>
      <select className="field-box" value={value} onChange={(event) => onChange(event.target.value)}>
        {currencies().map((code) => (
          <option key={code} value={code}>
            {code}, {new Intl.DisplayNames('en', { type: 'currency' }).of(code)}
          </option>
        ))}
      </select>
    </label>
  );
}
