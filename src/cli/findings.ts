import { applyEdit } from '@/core';
import { everybody, kindsOf, rightNow } from '@/core/access';
import { compareReach, fullName, viewersAffected } from '@/core/edit';
import { CHECKS, eachFinding, editOfMend, type Finding, keysOf, type Rank } from '@/core/findings';
import { type Definition, treeOf } from '@/core/model';
import type { World } from './world';

type Fix = Finding['mends'][number];

/** The worst first. */
export const RANKS: readonly Rank[] = ['lets-in', 'not-meant'];

/**
 * What is probably wrong with a definition for its kinds of viewers and the people of the world, of one rank and above: each
 * as soon as it is found.
 */
export function findingsOf(world: World, moment: number, atLeast: Rank): Generator<Finding, void> {
  const asked = RANKS.slice(0, RANKS.indexOf(atLeast) + 1);
  const checks = CHECKS.filter(({ rank }) => asked.includes(rank));
  return eachFinding(world.definition, personsOf(world), moment, checks);
}

const personsOf = ({ people }: World) => everybody(people).filter(({ key }) => key.startsWith('person:'));

const nameOf = (definition: Definition, id: string): string => {
  const element = treeOf(definition).get(id);
  return element ? fullName(element) : id;
};

interface Named {
  readonly key: string;
  readonly name: string;
}

/** Who would gain and who would lose something by a mend. */
interface MendEffect {
  readonly gain: readonly Named[];
  readonly lose: readonly Named[];
}

/** How effects of mends are worked out, where they are asked for. */
export type Effects = ((mend: Fix) => MendEffect | undefined) | undefined;

/** Works out the effects of mends among the kinds of viewers and the people of the world; undefined where one cannot be made. */
export function effectsIn(world: World): Effects {
  const { definition } = world;
  const viewers = [...kindsOf(definition), ...personsOf(world)].map((key) => ({ key, viewer: key.viewer }));
  return (mend) => {
    const edit = editOfMend(definition, mend);
    const made = edit && applyEdit(definition, edit);
    if (!made?.ok) return undefined;
    const { gaining, losing } = viewersAffected(compareReach(definition, made.value, viewers, rightNow()));
    return { gain: [...gaining], lose: [...losing] };
  };
}

/** A finding as it is written for scripts: what mends it is told, not done. */
export const plainFinding = ({ kind, rank, reason, places, whom, mends }: Finding, effects: Effects) => ({
  kind,
  rank,
  reason,
  places,
  whom: keysOf(whom),
  mends: mends.map((mend) => ({ says: mend.says, does: mend.does, ...inKeys(effects?.(mend)) })),
});

const inKeys = (effect: MendEffect | undefined) =>
  effect && { gain: effect.gain.map(({ key }) => key), lose: effect.lose.map(({ key }) => key) };

/** One finding in lines of text. */
export const findingInWords = (
  definition: Definition,
  { kind, rank, reason, places, mends }: Finding,
  effects: Effects,
): string =>
  [
    `${rank === 'lets-in' ? 'Access risk' : 'Likely mistake'}: ${reason} [${kind}]`,
    `  at ${places.map((id) => `${nameOf(definition, id)} (${id})`).join(', ')}`,
    ...mends.map((mend) => `  - ${mend.says}${effects ? ` ${effectInWords(effects(mend))}` : ''}`),
  ].join('\n');

function effectInWords(effect: MendEffect | undefined): string {
  if (!effect) return '(This fix cannot be applied automatically.)';
  const who = (some: readonly Named[]): string =>
    some.length === 0 ? 'nobody' : some.map(({ name }) => name).join(', ');
  return `(Gains access: ${who(effect.gain)}. Loses access: ${who(effect.lose)}.)`;
}

const LEVELS: Readonly<Record<Rank, 'error' | 'warning'>> = { 'lets-in': 'error', 'not-meant': 'warning' };

/**
 * Findings as SARIF 2.1.0 (OASIS), for code hosts that show them beside the file: each at the line where its first
 * place has its id.
 */
export function asSarif(file: string, text: string, definition: Definition, found: readonly Finding[]) {
  const lines = text.split('\n');
  const lineOf = (id: string): number =>
    Math.max(
      0,
      lines.findIndex((one) => one.includes(`"id": "${id}"`) || one.includes(`"id":"${id}"`)),
    ) + 1;
  return {
    version: '2.1.0',
    runs: [
      {
        tool: {
          driver: {
            name: 'Zinc Gate',
            rules: CHECKS.map(({ kind, rank, title }) => ({
              id: kind,
              shortDescription: { text: title },
              defaultConfiguration: { level: LEVELS[rank] },
            })),
          },
        },
        results: found.map(({ kind, rank, reason, places }) => ({
          ruleId: kind,
          level: LEVELS[rank],
          message: { text: reason },
          locations: [
            {
              physicalLocation: {
                artifactLocation: { uri: file },
                region: { startLine: lineOf(places[0] ?? '') },
              },
              logicalLocations: places.map((id) => ({
                name: nameOf(definition, id),
                fullyQualifiedName: id,
              })),
            },
          ],
          partialFingerprints: { place: `${kind} ${places.join(' ')}` },
        })),
      },
    ],
  };
}
