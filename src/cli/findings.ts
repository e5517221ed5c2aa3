import { everybody } from '@/core/access';
import { fullName } from '@/core/edit';
import { CHECKS, type Finding, findingsIn, keysOf, type Rank } from '@/core/findings';
import { type Definition, treeOf } from '@/core/model';
import type { World } from './world';

/** The worst first. */
export const RANKS: readonly Rank[] = ['lets-in', 'not-meant'];

/** What is probably wrong with a definition for its kinds of viewers and the people of the world; of one rank and above. */
export function findingsOf(world: World, moment: number, atLeast: Rank): readonly Finding[] {
  const people = everybody(world.people).filter(({ key }) => key.startsWith('person:'));
  const asked = RANKS.slice(0, RANKS.indexOf(atLeast) + 1);
  return findingsIn(world.definition, people, moment).filter(({ rank }) => asked.includes(rank));
}

const nameOf = (definition: Definition, id: string): string => {
  const element = treeOf(definition).get(id);
  return element ? fullName(element) : id;
};

/** A finding as it is written for scripts: what mends it is told, not done. */
export const plainFinding = ({ kind, rank, reason, places, whom, mends }: Finding) => ({
  kind,
  rank,
  reason,
  places,
  whom: keysOf(whom),
  mends: mends.map(({ says }) => says),
});

/** One finding in lines of text. */
export const findingInWords = (
  definition: Definition,
  { kind, rank, reason, places, mends }: Finding,
): string =>
  [
    `${rank === 'lets-in' ? 'Lets in' : 'Not meant'}: ${reason} [${kind}]`,
    `  at ${places.map((id) => `${nameOf(definition, id)} (${id})`).join(', ')}`,
    ...mends.map(({ says }) => `  - ${says}`),
  ].join('\n');

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
