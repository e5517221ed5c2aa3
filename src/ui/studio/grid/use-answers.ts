'use client';

import { useCallback, useMemo } from 'react';
import { matrixOf } from '@/core';
import { allAlike, type Answer, type Cell, cellOf, unpacked } from '@/core/access';
import { amongInWords } from '@/core/edit';
import type { AppElement } from '@/core/model';
import { useBench, type RailViewer } from '../frame/bench';

/** What the grid's cells say, each by its column and element. */
interface Answers {
  readonly answer: (column: number, element: AppElement) => Answer;
  /** The answer, and where it comes from. */
  readonly cell: (column: number, element: AppElement) => Cell;
  /** How many of a kind's people get it, in words, where that says more than the cell. */
  readonly among: (column: number, element: AppElement) => string | undefined;
}

/** The answers of these columns for all elements. */
export function useAnswers(columns: readonly RailViewer[]): Answers {
  const { compiled, circumstances, accessFor, numbers: some } = useBench();
  const numbers = useMemo(() => some.forAll(), [some]);
  // All answers at once, for filters ask them all; where one comes from is asked for what is in view.
  const answer = useMemo(() => {
    const viewers = columns.map((one) => one.viewer);
    const matrix = matrixOf(compiled, viewers, circumstances);
    const width = compiled.tree.elements.length;
    return (column: number, { number }: AppElement): Answer =>
      unpacked(matrix[column * width + number] as number);
  }, [columns, compiled, circumstances]);
  const cell = useMemo(() => {
    const known = columns.map((): (Cell | undefined)[] => []);
    return (column: number, element: AppElement): Cell => {
      const mine = known[column] as (Cell | undefined)[];
      return (mine[element.number] ??= cellOf(
        accessFor(columns[column] as RailViewer),
        element,
        answer(column, element),
      ));
    };
  }, [columns, accessFor, answer]);
  const among = useCallback(
    (column: number, element: AppElement): string | undefined => {
      const { least, most } = answer(column, element);
      const people = least < most ? numbers.among(columns[column]?.key ?? '', element) : undefined;
      return people && !allAlike(people) ? amongInWords(element.kind, people) : undefined;
    },
    [answer, numbers, columns],
  );
  return { answer, cell, among };
}
