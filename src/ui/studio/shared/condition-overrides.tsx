import { lineInWords, type PersonName } from '@/core/edit';
import { type Definition, treeOf } from '@/core/model';
import { Select } from '@/ui/parts/select';

/** Conditions that are taken as true or as false while one looks, by the line's id. */
export type ConditionOverrides = Readonly<Record<string, boolean>>;

/** The same with this line's condition taken so; as it is, where `as` is not given. */
export function withOverride(
  taken: ConditionOverrides,
  line: string,
  as: boolean | undefined,
): ConditionOverrides {
  const { [line]: _, ...others } = taken;
  return as === undefined ? others : { ...others, [line]: as };
}

/** How a line's condition is taken: as it is, as true, as false. */
export function OverrideSelect({
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
      In this preview, treat the condition
      <Select
        aria-label={`Preview setting for the condition of ${who}`}
        className={`w-auto px-1 py-0 ${as === undefined ? '' : 'font-semibold'}`}
        value={as === undefined ? '' : String(as)}
        onChoose={(chosen) => onTake(chosen === '' ? undefined : chosen === 'true')}
        none="normally"
        options={[
          { id: 'true', name: 'as always true' },
          { id: 'false', name: 'as always false' },
        ]}
      />
    </label>
  );
}

/** Says, while it is so, which conditions are not asked but taken as true or false. */
export function OverrideNote({
  definition,
  taken,
  personName,
  onEnd,
}: {
  definition: Definition;
  taken: ConditionOverrides;
  personName: PersonName;
  onEnd: () => void;
}) {
  const said = Object.entries(definition.gates).flatMap(([id, { lines }]) =>
    lines
      .filter((line) => taken[line.id] !== undefined)
      .map(
        (line) =>
          `${treeOf(definition).get(id)?.name ?? id}: “${lineInWords(line, id, definition, personName)}” is treated as ${String(taken[line.id])}`,
      ),
  );
  if (said.length === 0) return null;
  return (
    <p role="status" className="border-b border-rule bg-sheet px-2 py-1 text-[13px]">
      {said.join('; ')}.{' '}
      <button type="button" className="link" onClick={onEnd}>
        Reset
      </button>
    </p>
  );
}
