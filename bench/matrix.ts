import { gzipSync } from 'node:zlib';
import { matrixOf, viewerOfPerson } from '@/core';
import { Compiled, rightNow, type Viewer } from '@/core/access';
import { type Definition, withIncluded } from '@/core/model';
import { Random } from '@/core/making';
import { BIG, bigApplication, bigPeople, rolesOf } from './big';
import { median, type Measure } from './measure';

/** For each role, a byte an element: some levels that it gives. What they are does not matter to the loop. */
function roleBytes(definition: Definition, width: number, random: Random): Map<string, Uint8Array> {
  return new Map(
    definition.roles.map(({ id }) => [id, Uint8Array.from({ length: width }, () => random.whole(0, 3))]),
  );
}

/** The bare loop: for each viewer, the OR of the bytes of each role held, element by element. */
function bareLoop(held: readonly (readonly Uint8Array[])[], width: number): Uint8Array {
  const matrix = new Uint8Array(held.length * width);
  held.forEach((sets, n) => {
    const from = n * width;
    for (const set of sets)
      for (let e = 0; e < width; e++) matrix[from + e] = (matrix[from + e] as number) | (set[e] as number);
  });
  return matrix;
}

/**
 * (c) The full matrix of 6,000 elements by 40 roles and by 5,000 people, compiled first and nothing shared yet,
 * against a bare loop of OR over typed arrays of the same size; and the grid's cells, for its 45 columns.
 */
export function measureMatrix(): Measure[] {
  const random = new Random(11);
  const definition = bigApplication(random);
  const people = bigPeople(random).map(viewerOfPerson);
  const at = rightNow();
  const width = new Compiled(definition).tree.elements.length;
  if (Math.abs(width - BIG.elements) > BIG.elements / 50) throw new Error(`${width} elements`);
  const bytes = roleBytes(definition, width, random);
  const heldBy = (viewers: readonly Viewer[]): Uint8Array[][] =>
    viewers.map((viewer) =>
      viewer.kind === 'signed-out'
        ? []
        : [
            ...withIncluded(
              definition,
              viewer.assignments.map(({ role }) => role),
            ),
          ].map((role) => bytes.get(role) as Uint8Array),
    );
  const measure = (name: string, viewers: readonly Viewer[], rounds: number, most: number): Measure => {
    const held = heldBy(viewers);
    const [ours = 0, against = 1] = median(
      [() => void matrixOf(new Compiled(definition), viewers, at), () => void bareLoop(held, width)],
      rounds,
    );
    return { name, ours, against, unit: 'ms', ratio: ours / against, most };
  };
  /** Opening the grid: the definition is there and compiled, since the bench works on it. */
  const gridCells = (
    columns: readonly Viewer[],
    held: readonly (readonly Uint8Array[])[],
    cells: number,
  ): Measure => {
    const compiled = new Compiled(definition);
    const [ours = 0, against = 1] = median(
      [() => void matrixOf(compiled, columns, at), () => void bareLoop(held, cells)],
      15,
    );
    return {
      name: `opening the grid: the answers of ${cells} elements × ${columns.length} columns`,
      ours,
      against,
      unit: 'ms',
      ratio: ours / against,
      most: 4,
    };
  };
  const everybody = [...rolesOf(definition), ...people];
  const columns = [...rolesOf(definition), ...people.slice(0, 5)];
  const sent = gzipSync(JSON.stringify(definition)).length / 1000;
  return [
    measure(`the matrix of ${width} elements × ${everybody.length} viewers, compiled first`, everybody, 5, 4),
    gridCells(columns, heldBy(columns), width),
    {
      name: 'what is sent for the grid: the definition, compressed, from which cells are worked out',
      ours: sent,
      against: 400,
      unit: 'kB',
      ratio: sent / 400,
      most: 1,
    },
  ];
}
