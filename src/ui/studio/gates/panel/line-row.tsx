'use client';

import { Trash2 } from 'lucide-react';
import { ToggleGroup } from 'radix-ui';
import { useMemo, useState } from 'react';
import { print } from '@/core';
import { type PeopleGroup, counts } from '@/core/access';
import { whatInWords, whoInWords, plural } from '@/core/edit';
import { gives, type Line, type What, withIncluded } from '@/core/model';
import { useBench } from '../../frame/bench';
import { ConditionWindow } from '../../shared/condition/condition-on-demand';
import { countOf, namesOf, peopleInWords } from '../../shared/use-people';
import { OverrideSelect, withOverride } from '../../shared/condition-overrides';
import { Checkbox } from '@/ui/parts/checkbox';

/** When the line counts: always, or where its condition holds. */
function When({ line, who, change }: { line: Line; who: string; change: (to: Line) => void }) {
  const { compiled, target, mayChange, app, taken, take } = useBench();
  const [open, setOpen] = useState(false);
  const scope = compiled.scope(target);
  const { when, ...always } = line;
  return (
    <div className="mt-1 text-[13px]">
      {when ? (
        <p className="flex items-start gap-2">
          <span className="shrink-0 text-quiet">when</span>
          <code className="min-w-0 flex-1 font-mono text-[12px] break-words">{print(scope, when)}</code>
          {mayChange && (
            <button
              type="button"
              className="link shrink-0"
              onClick={() => setOpen(true)}
              aria-label={`Edit the condition for ${who}`}
            >
              Change
            </button>
          )}
        </p>
      ) : (
        mayChange && (
          <button
            type="button"
            className="link"
            onClick={() => setOpen(true)}
            aria-label={`Add a condition for ${who}`}
          >
            Add condition…
          </button>
        )
      )}
      {when && (
        <OverrideSelect
          who={who}
          as={taken[line.id]}
          onTake={(as) => take(withOverride(taken, line.id, as))}
        />
      )}
      {open && (
        <ConditionWindow
          title={`${who}: ${whatInWords(target.kind, line.what).toLowerCase()}, if…`}
          app={app}
          scope={scope}
          condition={when}
          onUse={(next) => change({ ...line, when: next })}
          onRemove={when ? () => change(always) : undefined}
          onClose={() => setOpen(false)}
        />
      )}
    </div>
  );
}

/** The line doing something else. One that comes to take away from a role starts as exactly that role. */
function turned(line: Line, what: What): Line {
  const takes = !gives({ what }) && gives(line);
  if (line.who.kind !== 'role' || !takes) return { ...line, what };
  return { ...line, what, who: { ...line.who, exactly: true } };
}

/** Of a line that takes away from a role: who is hit and would have something by another role. */
function useWhomElse(line: Line): { readonly also: readonly PeopleGroup[]; readonly others: string } {
  const { definition, people, circumstances } = useBench();
  return useMemo(() => {
    const { who } = line;
    if (gives(line) || who.kind !== 'role') return { also: [], others: '' };
    const hit = people.alike.flatMap((one) => {
      const assignments = one.viewer.kind === 'signed-in' ? one.viewer.assignments : [];
      const held = assignments.filter((given) => counts(given, circumstances.moment)).map(({ role }) => role);
      const speaks = (role: string): boolean =>
        who.exactly ? role === who.role : withIncluded(definition, [role]).has(who.role);
      const others = held.filter((role) => !speaks(role));
      return held.some(speaks) && others.length > 0 ? [{ one, others }] : [];
    });
    const roles = [...new Set(hit.flatMap((one) => one.others))];
    return {
      also: hit.map(({ one }) => one),
      others: roles.map((id) => definition.roles.find((one) => one.id === id)?.name ?? id).join(', '),
    };
  }, [line, definition, people, circumstances]);
}

const WHATS: readonly What[] = ['block', 'at-most-see', 'see', 'edit'];

export function LineRow({ line, at }: { line: Line; at: number }) {
  const { definition, personName, target, apply, mayChange } = useBench();
  const { also, others } = useWhomElse(line);
  const who = whoInWords(line.who, definition, personName);
  const change = (to: Line): void => apply({ do: 'changeLine', gate: target.id, from: line, to });
  const above = useMemo(
    () =>
      line.who.kind === 'role' &&
      definition.roles.some((one) => line.who.kind === 'role' && one.includes.includes(line.who.role)),
    [definition, line],
  );
  return (
    <li
      className="border border-rule px-2.5 py-1.5"
      aria-label={`${who}: ${whatInWords(target.kind, line.what)}`}
    >
      <div className="flex items-center gap-2">
        <span className="min-w-0 flex-1 truncate font-medium" title={who}>
          {who}
        </span>
        {above && line.who.kind === 'role' && (
          <Checkbox
            className="shrink-0 text-[12px] text-quiet"
            title="Only people assigned this role directly, not people whose role includes it"
            disabled={!mayChange}
            checked={line.who.exactly ?? false}
            onTurn={(on) => {
              if (line.who.kind !== 'role') return;
              const { kind, role } = line.who;
              change({
                ...line,
                who: on ? { kind, role, exactly: true } : { kind, role },
              });
            }}
          >
            directly assigned only
          </Checkbox>
        )}
        {mayChange && (
          <button
            type="button"
            aria-label={`Remove the line for ${who}`}
            className="shrink-0 p-0.5 text-quiet hover:text-ink"
            onClick={() => apply({ do: 'removeLine', gate: target.id, line, at })}
          >
            <Trash2 size={14} aria-hidden />
          </button>
        )}
      </div>
      <ToggleGroup.Root
        type="single"
        aria-label={`Access for ${who}`}
        value={line.what}
        disabled={!mayChange}
        onValueChange={(what) => what && change(turned(line, what as What))}
        className="mt-1 grid grid-cols-[1fr_1.6fr_1fr_1fr] border border-edge text-[12px]"
      >
        {WHATS.map((what) => (
          <ToggleGroup.Item
            key={what}
            value={what}
            className="border-edge px-1 py-0.5 not-last:border-r hover:bg-sheet data-[state=on]:bg-lead data-[state=on]:font-semibold data-[state=on]:text-white data-[gives=true]:data-[state=on]:bg-open"
            data-gives={what === 'see' || what === 'edit'}
          >
            {whatInWords(target.kind, what)}
          </ToggleGroup.Item>
        ))}
      </ToggleGroup.Root>
      <When line={line} change={change} who={who} />
      {also.length > 0 && (
        <p className="mt-1 text-[13px]" role="status">
          This also affects {peopleInWords(countOf(also))} who {plural(countOf(also), 'has', 'have')} {others}
          : {namesOf(also, 6)}.
        </p>
      )}
    </li>
  );
}
