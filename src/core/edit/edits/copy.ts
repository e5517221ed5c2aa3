import type { Definition } from '../../model/definition';
import { sameWho, type Line, type Who } from '../../model/gate';
import { newId, type Id } from '../../model/id';
import { sameJson } from '../../model/same-json';
import { withIncluded } from '../../model/tree';
import type { Edit } from './edit';
import { editLines } from './make';

/**
 * The edit that gives one role what another has, on these gates: each line that speaks of the one is written
 * for the other too, and lines that named the other by itself are taken away. Conditions go with their lines.
 * What the other role has by inclusion, or as anybody who is signed in, stays. Undefined where nothing changes.
 */
export function copyRole(definition: Definition, from: Id, to: Id, gates: readonly Id[]): Edit | undefined {
  const given = withIncluded(definition, [from]);
  const has = withIncluded(definition, [to]);
  const edits: Edit[] = [];
  for (const gate of gates) {
    const lines = Object.hasOwn(definition.gates, gate) ? definition.gates[gate]?.lines : undefined;
    if (!lines) continue;
    const speaksOf = ({ who }: Line): boolean =>
      who.kind === 'role' && (who.exactly ? who.role === from : given.has(who.role));
    const reaches = ({ who }: Line): boolean =>
      who.kind === 'role' && !who.exactly && who.role !== to && has.has(who.role);
    const kept = lines.filter(({ who }) => !(who.kind === 'role' && who.role === to && from !== to));
    const wanted: Who = { kind: 'role', role: to };
    const copies = lines
      .filter((line) => speaksOf(line) && !reaches(line))
      .map((line): Line => {
        const who: Who = line.who.kind === 'role' && line.who.exactly ? { ...wanted, exactly: true } : wanted;
        const same = lines.find(
          (one) => sameWho(one.who, who) && one.what === line.what && sameJson(one.when, line.when),
        );
        return same ?? { ...line, id: newId(), who };
      });
    const unlike = copies.filter(
      (line, n) => copies.findIndex((one) => sameSaid(one, line)) === n && !kept.includes(line),
    );
    const after = [...kept, ...unlike];
    const same = after.length === lines.length && after.every((line) => lines.includes(line));
    if (!same) edits.push(editLines(gate, lines, after));
  }
  return edits.length === 0 ? undefined : { do: 'together', edits };
}

const sameSaid = (a: Line, b: Line): boolean =>
  a.what === b.what && sameWho(a.who, b.who) && sameJson(a.when, b.when);

/** The edit that gives an element the very lines of another, or lets it follow where that one follows. */
export function copyGate(definition: Definition, from: Id, to: Id): Edit | undefined {
  const linesOf = (id: Id): readonly Line[] | undefined =>
    Object.hasOwn(definition.gates, id) ? definition.gates[id]?.lines : undefined;
  const [source, target] = [linesOf(from), linesOf(to)];
  if (!source) return target && { do: 'follow', gate: to, lines: target };
  return editLines(
    to,
    target,
    source.map((line) => ({ ...line, id: newId() })),
  );
}
