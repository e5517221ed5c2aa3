'use client';

import { useEffect, useState } from 'react';
import type { Cell } from '@/core/access';
import { DASHES, LEVEL_SHAPES, levelPaths, shapeOf } from '../shared/level-paths';

/** A cell's width and height. */
export const COLUMN = 34;
export const ROW = 24;

const SIZE = 11.5;
const LEFT = (COLUMN - SIZE) / 2;
const TOP = (ROW - SIZE) / 2;

/** All marks that cells can have, side by side, at the screen's resolution: each mark is so many pixels wide and high. */
export interface MarkSheet {
  readonly picture: HTMLCanvasElement;
  readonly width: number;
  readonly height: number;
}

/** Which mark of the sheet a cell has: each level stands there with each mix of the strokes that tell where it comes from. */
export const markOf = ({ answer, own, byContainer, byDoor }: Cell): number =>
  LEVEL_SHAPES.indexOf(shapeOf(answer)) * 8 + (own ? 1 : 0) + (byContainer ? 2 : 0) + (byDoor ? 4 : 0);

/** The sheet of marks, once the page is there; another one when the resolution is another. */
export function useMarkSheet(): MarkSheet | undefined {
  const [sheet, setSheet] = useState<MarkSheet>();
  useEffect(() => {
    let resolution: MediaQueryList | undefined;
    const draw = (): void => {
      setSheet(drawSheet(window.devicePixelRatio));
      resolution = window.matchMedia(`(resolution: ${window.devicePixelRatio}dppx)`);
      resolution.addEventListener('change', draw, { once: true });
    };
    draw();
    return () => resolution?.removeEventListener('change', draw);
  }, []);
  return sheet;
}

/** Levels by their shapes; a stroke under own lines, over what a container limits, beside what a door does. */
function drawSheet(scale: number): MarkSheet | undefined {
  const picture = document.createElement('canvas');
  const [width, height] = [Math.round(COLUMN * scale), Math.round(ROW * scale)];
  picture.width = width * LEVEL_SHAPES.length * 8;
  picture.height = height;
  const pen = picture.getContext('2d', { willReadFrequently: true });
  if (!pen) return undefined;
  const style = getComputedStyle(document.documentElement);
  const colour = (name: string): string => style.getPropertyValue(`--color-${name}`).trim();
  LEVEL_SHAPES.forEach((shape, row) => {
    const { frame, fill, hatch } = levelPaths(shape, { left: LEFT, top: TOP, width: SIZE, height: SIZE });
    for (let origin = 0; origin < 8; origin++) {
      pen.setTransform(scale, 0, 0, scale, (row * 8 + origin) * width, 0);
      pen.strokeStyle = colour(shape === 'none' ? 'edge' : 'open');
      pen.lineWidth = 1.2;
      pen.setLineDash(shape === 'depends' ? DASHES : []);
      pen.stroke(new Path2D(frame));
      pen.setLineDash([]);
      pen.stroke(new Path2D(hatch));
      pen.fillStyle = colour('open');
      pen.fill(new Path2D(fill));
      pen.fillStyle = colour('ink');
      if (origin & 1) pen.fillRect(LEFT, ROW - 3, SIZE, 2);
      if (origin & 2) pen.fillRect(LEFT, 1, SIZE, 2);
      if (origin & 4) pen.fillRect(LEFT + SIZE + 3, TOP, 2, SIZE);
    }
  });
  return { picture, width, height };
}
