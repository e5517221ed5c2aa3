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
      `Type changes from ${typeInWords(before, { ...field, type: from })} to ${typeInWords(after, field)}.`,
      held === 0
        ? 'No record has a value.'
        : `${records(held, 'has', 'have')} a value: ${inWords(fits, back, lost)}.`,
      ...(lost > 0
        ? [
            'Values that cannot be converted become empty. They are kept and restored if the field gets its old type back.',
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
    fits > 0 ? counted(fits, 'can be converted', 'can be converted') : '',
    back > 0 ? counted(back, 'gets its earlier value back', 'get their earlier values back') : '',
    lost > 0 ? counted(lost, 'cannot be converted', 'cannot be converted') : '',
  ]
    .filter(Boolean)
    .join(', ');

const nameOf = ({ entity, field }: Lost): string =>
  field ? `${field.name} (${entity.plural})` : entity.plural;

function goneInWords({ what }: Lost, count: number): string {
  switch (what) {
    case 'entity':
      return `The entity is deleted, so ${records(count, 'is', 'are')} no longer shown. The records are kept and reappear if the entity is restored.`;
    case 'field':
      return `The field is deleted. ${records(count, 'has', 'have')} a value that is no longer shown. The values are kept and reappear if the field is restored.`;
    case 'needed':
      return `The field becomes required. ${records(count, 'has', 'have')} no value and must be given one when next saved.`;
  }
}
