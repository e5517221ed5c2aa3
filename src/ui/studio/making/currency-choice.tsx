'use client';

import { currencies } from './application-settings';
import { Select } from '@/ui/parts/select';

interface Props {
  readonly value: string;
  readonly onChange: (currency: string) => void;
}

/** In which currency the application tells money. */
export function CurrencyChoice({ value, onChange }: Props) {
  return (
    <label className="w-64">
      <span className="text-quiet">Currency</span>
      <Select
        value={value}
        onChoose={onChange}
        options={currencies().map((code) => ({
          id: code,
          name: `${code}, ${new Intl.DisplayNames('en', { type: 'currency' }).of(code)}`,
        }))}
      />
    </label>
  );
}
