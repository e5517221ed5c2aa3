'use client';

import { ToggleGroup } from 'radix-ui';

/** The forms of the gates bench. */
export const FORMS = [
  { key: 'screen', name: 'Screen', about: 'The real screen, with the outline beside it' },
  { key: 'grid', name: 'Grid', about: 'All elements down, all viewers across' },
  { key: 'what', name: 'What one sees', about: 'All that one viewer gets, as a list' },
  { key: 'who', name: 'Who sees it', about: 'Everybody who gets one element, by way in' },
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
      aria-label="Form of the bench"
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
