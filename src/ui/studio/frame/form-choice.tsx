'use client';

import { ToggleGroup } from 'radix-ui';

/** The forms of the gates bench. */
export const FORMS = [
  { key: 'screen', name: 'Screen', about: 'The screen itself, next to the outline' },
  { key: 'grid', name: 'Grid', about: 'All elements as rows and all viewers as columns' },
  { key: 'what', name: 'By viewer', about: 'Everything one viewer has access to, as a list' },
  { key: 'who', name: 'By element', about: 'Everyone who has access to one element, and how they get it' },
] as const;

interface Props<F extends string> {
  readonly forms: readonly { readonly key: F; readonly name: string; readonly about: string }[];
  readonly form: F;
  readonly onChoose: (form: F) => void;
}

/** Which of its forms a bench has. */
export function FormChoice<F extends string>({ forms, form, onChoose }: Props<F>) {
  return (
    <ToggleGroup.Root
      type="single"
      aria-label="View"
      value={form}
      onValueChange={(value) => {
        const found = forms.find(({ key }) => key === value);
        if (found) onChoose(found.key);
      }}
      className="flex w-fit max-w-full shrink-0 border border-edge"
    >
      {forms.map(({ key, name, about }) => (
        <ToggleGroup.Item
          key={key}
          value={key}
          title={about}
          className="min-h-[24px] border-r border-edge px-1 text-[11px] min-[1200px]:px-1.5 min-[1200px]:text-[12px] whitespace-nowrap last:border-r-0 hover:bg-sheet data-[state=on]:bg-ink data-[state=on]:text-white"
        >
          {name}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
