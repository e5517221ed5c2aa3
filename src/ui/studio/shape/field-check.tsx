'use client';

import { type EntityField, FORMS_OF_TEXT, TEXT_FORMS, type TextCheck } from '@/core/model';
import { useBench } from '../frame/bench';
import { KeptText } from '@/ui/parts/kept-text';
import { Choice } from './choice';
import { Labelled } from './labelled';
import { useChange } from './use-change';

/** What a text must be like: its form, and how long it may be. */
export function FieldCheck({ field }: { field: EntityField }) {
  const { mayChange } = useBench();
  const change = useChange();
  const check = field.check ?? {};
  const put = (key: keyof TextCheck, value: number | string | undefined): void => {
    const { [key]: _, ...others } = check;
    const next = value === undefined ? others : { ...others, [key]: value };
    change({ check: Object.keys(next).length > 0 ? next : null });
  };
  return (
    <div className="grid grid-cols-[1fr_6rem] gap-2">
      <Choice
        label="Format"
        value={check.form ?? ''}
        options={[['', 'any text'], ...TEXT_FORMS.map((form) => [form, FORMS_OF_TEXT[form].name] as const)]}
        onChoose={(form) => put('form', form || undefined)}
      />
      <Labelled label="Maximum length">
        <KeptText
          label="Maximum number of characters"
          placeholder="characters"
          mayBeEmpty
          value={check.most === undefined ? '' : String(check.most)}
          disabled={!mayChange}
          onKeep={(text) => put('most', text === '' ? undefined : Number(text))}
        />
      </Labelled>
    </div>
  );
}
