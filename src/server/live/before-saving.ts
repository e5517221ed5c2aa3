import { readAddress, resolve } from '@/core';
import { type KnownRecord, NONE, type ShownPart, type ShownScreen, type ShownSection } from '@/core/access';
import { notThere } from '../http/problem';
import { knownRecord, openRecord, type RecordScope } from '../records/read';
import { recordBeforeMaking, recordBeforeSaving, type Input } from '../records/write';

/**
 * A screen as it would be with values as they are written, before they are saved (access.md 10). Nothing is stored, and
 * only values that the viewer could write count. What opens by them comes with its control and without what is
 * stored in it: that is sent once it is saved. Nothing is told that saving would not have told.
 */
export async function sectionsBeforeSaving(
  scope: RecordScope,
  {
    address,
    values,
    face,
  }: { readonly address: string; readonly values: object; readonly face?: string | undefined },
): Promise<readonly ShownSection[]> {
  const { access } = scope;
  const { tree } = access.compiled;
  const destination = readAddress(tree, address);
  const binds = destination?.screen.binds;
  if (!destination || !binds) throw notThere();
  const { screen } = destination;
  const entity = tree.need(binds.entity, 'rows').node;
  const input = values as Input;
  let now: ShownScreen | undefined;
  let proposed: KnownRecord | undefined;
  if (binds.record === 'existing') {
    const stored =
      destination.record === undefined ? undefined : await openRecord(scope, entity, destination.record);
    if (!stored) throw notThere();
    const known = await knownRecord(scope, entity, stored);
    now = resolve(access, screen, known, face);
    proposed = now && (await recordBeforeSaving(scope, entity, known, input));
  } else {
    if (access.level(access.element(screen.id), undefined) === NONE) throw notThere();
    now = resolve(access, screen, undefined, face);
    proposed = now && (await recordBeforeMaking(scope, entity, input));
  }
  if (!now) throw notThere();
  const then = proposed && resolve(access, screen, proposed, face);
  return then ? withoutWhatIsNew(now, then) : now.sections;
}

/** The sections as they would be, with the values that were sent already, and none that would be new. */
function withoutWhatIsNew(now: ShownScreen, then: ShownScreen): ShownSection[] {
  const there = new Map(now.sections.flatMap(({ parts }) => parts).map((part) => [part.id, part]));
  return then.sections.map(({ id, name, parts }) => ({
    id,
    name,
    parts: parts.flatMap((part): ShownPart[] => {
      const before = there.get(part.id);
      if (part.kind === 'list') return before?.kind === 'list' ? [before] : [];
      if (part.kind !== 'field') return [part];
      const { value, text } = before?.kind === 'field' ? before : { value: null, text: '' };
      return [{ ...part, value, text }];
    }),
  }));
}
