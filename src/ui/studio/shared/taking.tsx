import { lineInWords, type PersonName } from '@/core/edit';
import { type Definition, treeOf } from '@/core/model';

/** Conditions that are taken as true or as false while one looks, by the line's id. */
export type Taken = Readonly<Record<string, boolean>>;

/** The same with this line's condition taken so; as it is, where `as` is not given. */
export function withTaken(taken: Taken, line: string, as: boolean | undefined): Taken {
  const { [line]: _, ...others } = taken;
  return as === undefined ? others : { ...others, [line]: as };
}

/** How a line's condition is taken: as it is, as true, as false. */
export function TakeChoice({
  who,
  as,
  onTake,
}: {
  who: string;
  as: boolean | undefined;
  onTake: (as: boolean | undefined) => void;
}) {
  return (
    <label className="mt-0.5 flex items-center gap-1 text-[12px] text-quiet">
      Looking, take it
      <select
        aria-label={`How the condition is taken: ${who}`}
        className={`field-box w-auto px-1 py-0 ${as === undefined ? '' : 'font-semibold'}`}
        value={as === undefined ? '' : String(as)}
        onChange={(event) => onTake(event.target.value === '' ? undefined : event.target.value === 'true')}
      >
        <option value="">as it is</option>
        <option value="true">as true</option>
        <option value="false">as false</option>
      </select>
    </label>
  );
}

/** Says, while it is so, which conditions are not asked but taken as true or false. */
export function TakenNote({
  definition,
  taken,
  personName,
  onEnd,
}: {
  definition: Definition;
  taken: Taken;
  personName: PersonName;
  onEnd: () => void;
}) {
  const said = Object.entries(definition.gates).flatMap(([id, { lines }]) =>
    lines
      .filter((line) => taken[line.id] !== undefined)
      .map(
        (line) =>
          `${treeOf(definition).get(id)?.name ?? id}: “${lineInWords(line, id, definition, personName)}” is taken as ${String(taken[line.id])}`,
      ),
  );
  if (said.length === 0) return null;
  return (
    <p role="status" className="border-b border-rule bg-sheet px-2 py-1 text-[13px]">
      {said.join('; ')}.{' '}
      <button type="button" className="link" onClick={onEnd}>
        As it is
      </button>
    </p>
  );
}
