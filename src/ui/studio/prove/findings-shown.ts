import { compile } from '@/core';
import { kindInWords } from '@/core/edit';
import type { Rank } from '@/core/findings';
import type { Definition } from '@/core/model';
import type { ShownFinding } from '@/contract/studio/proving';
import { placeOf } from './place-link';

/** What findings are put together by: what is wrong, or the screen or data where it is. */
export const GROUPED_BY = ['what', 'where'] as const;
type GroupedBy = (typeof GROUPED_BY)[number];

/** What is asked of the list of findings. */
export interface FindingsAsked {
  readonly text: string;
  readonly rank: Rank | 'all';
  readonly by: GroupedBy;
}

export interface FindingsGroup {
  readonly key: string;
  readonly name: string;
  readonly findings: readonly ShownFinding[];
}

/**
 * The findings of this rank in which every word of the text is found, in groups: each group stands where its worst finding
 * does.
 */
export function groupsOf(
  definition: Definition,
  findings: readonly ShownFinding[],
  { text, rank, by }: FindingsAsked,
): FindingsGroup[] {
  const words = text.toLowerCase().split(/\s+/).filter(Boolean);
  const groups = new Map<string, ShownFinding[]>();
  for (const finding of findings) {
    if (rank !== 'all' && finding.rank !== rank) continue;
    const said = [
      finding.title,
      finding.reason,
      ...finding.places.map((id) => placeOf(definition, id)?.name ?? id),
    ]
      .join(' ')
      .toLowerCase();
    if (!words.every((word) => said.includes(word))) continue;
    const key = by === 'what' ? finding.title : whereOf(definition, finding);
    groups.set(key, [...(groups.get(key) ?? []), finding]);
  }
  return [...groups].map(([name, some]) => ({ key: `${by} ${name}`, name, findings: some }));
}

/** "Loans, screen", "Items, data"; what belongs to neither stands under its kind. */
function whereOf(definition: Definition, { places }: ShownFinding): string {
  const { tree } = compile(definition);
  const element = tree.get(places[0] ?? '');
  if (element?.screen) return `${element.screen.name}, screen`;
  const entity = element && (element.kind === 'rows' ? element : tree.entityOf(element.id));
  if (entity) return `${'plural' in entity ? entity.plural : entity.name}, data`;
  if (element) return kindInWords(element.kind);
  const kind = placeOf(definition, places[0] ?? '')?.kind ?? 'other';
  return `${kind.charAt(0).toUpperCase()}${kind.slice(1)}`;
}
