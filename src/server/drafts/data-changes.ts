import { conversionsOf, lostBetween, type Lost } from '@/core/converting';
import { type DataChange, typeInWords, counted } from '@/core/edit';
import type { Definition } from '@/core/model';
import { patientDatabase } from '../database/client';
import type { RecordKind } from '../database/schema';
import { convertRecords, countLost } from '../records/convert';
import { today } from '../today';

/** What one definition in the place of another does to stored records, in words, with numbers and examples. */
export async function dataChanges(
  of: { readonly applicationId: string; readonly kind: RecordKind },
  before: Definition,
  after: Definition,
): Promise<readonly DataChange[]> {
  const on = patientDatabase();
  const changes = conversionsOf(before, after);
  const converted = await convertRecords(of, before, after, changes, on, { write: false, today: today() });
  const turned = converted.map(({ held, fits, back, lost, examples }, n): DataChange => {
    const { entity, field, from } = changes[n] as (typeof changes)[number];
    const said = [
      `Until then: ${typeInWords(before, { ...field, type: from })}. From then on: ${typeInWords(after, field)}.`,
      held === 0
        ? 'No record has a value.'
        : `${records(held, 'has', 'have')} a value: ${inWords(fits, back, lost)}.`,
      ...(lost > 0
        ? [
            'What does not fit is empty from then on. It is kept, for when the field holds the first type again.',
          ]
        : []),
    ];
    return { about: `${field.name} (${entity.plural})`, said, examples };
  });
  const gone: DataChange[] = [];
  for (const one of lostBetween(before, after)) {
    const count = await countLost(of, one, on);
    if (count > 0) gone.push({ about: nameOf(one), said: [goneInWords(one, count)], examples: [] });
  }
  return [...turned, ...gone];
}

const records = (n: number, one: string, many: string): string =>
  counted(n, `record ${one}`, `records ${many}`);

const inWords = (fits: number, back: number, lost: number): string =>
  [
    fits > 0 ? counted(fits, 'fits', 'fit') : '',
    back > 0 ? counted(back, 'gets its earlier one back', 'get their earlier one back') : '',
    lost > 0 ? counted(lost, 'does not fit', 'do not fit') : '',
  ]
    .filter(Boolean)
    .join(', ');

const nameOf = ({ entity, field }: Lost): string =>
  field ? `${field.name} (${entity.plural})` : entity.plural;

function goneInWords({ what }: Lost, count: number): string {
  switch (what) {
    case 'entity':
      return `All of it goes: ${records(count, 'is', 'are')} no longer seen. They stay stored, and are there again if it comes back.`;
    case 'field':
      return `It goes: ${records(count, 'has', 'have')} a value that is no longer seen. It stays stored, and is there again if the field comes back.`;
    case 'needed':
      return `It is needed from then on: ${records(count, 'has', 'have')} none, and must get one when they are next saved.`;
  }
}
