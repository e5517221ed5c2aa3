import type { Answer } from '@/core/access';

/** The shapes that levels are told by: empty, half filled, filled, and hatched where it depends. */
export const LEVEL_SHAPES = ['none', 'see', 'edit', 'depends'] as const;
export type LevelShape = (typeof LEVEL_SHAPES)[number];

export const shapeOf = ({ least, most }: Answer): LevelShape =>
  least !== most ? 'depends' : most === 0 ? 'none' : most === 1 ? 'see' : 'edit';

/** Dashes of the frame of what depends. */
export const DASHES = [2, 1.4];

export interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  /** So narrow that "none" goes without its stroke across. */
  readonly narrow?: boolean;
}

/** How a level is drawn, as path data of SVG: a frame and a hatch that are stroked, and what is filled. */
export function levelPaths(
  shape: LevelShape,
  { left, top, width, height, narrow = false }: Box,
): { readonly frame: string; readonly fill: string; readonly hatch: string } {
  const half = height / 2;
  const box = (from: number, tall: number): string => `M${left} ${from}h${width}v${tall}h${-width}z`;
  const across = `M${left} ${top + height}l${width} ${-height}`;
  return {
    frame: box(top, height) + (shape === 'none' && !narrow ? across : ''),
    fill: shape === 'edit' ? box(top, height) : shape === 'see' ? box(top + half, half) : '',
    hatch:
      shape === 'depends'
        ? `M${left} ${top + half}l${width * 0.55} ${-half}` +
          `M${left} ${top + height}l${width} ${height * -0.9}` +
          `M${left + width / 2} ${top + height}l${width / 2} ${height * -0.45}`
        : '',
  };
}
