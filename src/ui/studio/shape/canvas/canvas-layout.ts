import type { Seam } from '@/core/edit';
import type { AppElement, Slot } from '@/core/model';

/** Where something is drawn, from the upper left corner of the canvas's content. In CSS pixels. */
interface Box {
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
}

/** The gap between two elements that are drawn one after the other, or at either end of them. */
export interface DrawnSeam extends Seam {
  readonly key: string;
  readonly box: Box;
  /** Between two that stand beside each other. */
  readonly upright: boolean;
  /** What is before and behind it, in words. */
  readonly about: string;
}

/** Something that can be taken and put elsewhere. */
export interface Movable {
  readonly element: AppElement;
  readonly slot: Slot;
  readonly box: Box;
}

export interface CanvasLayout {
  readonly seams: readonly DrawnSeam[];
  readonly movables: readonly Movable[];
}

/** How far apart parts are drawn, half of it; and how thick a seam is to be hit. */
const HALF = 6;
const THICK = 12;

/** Reads from what is drawn where a screen's sections, parts and columns are, and the seams between them. */
export function measureLayout(content: HTMLElement, screen: AppElement): CanvasLayout {
  const origin = content.getBoundingClientRect();
  const boxOf = ({ id }: AppElement): Box | undefined => {
    const drawn = content.querySelector(`[data-element="${CSS.escape(id)}"]`);
    if (!drawn) return undefined;
    const { left, top, width, height } = drawn.getBoundingClientRect();
    return { left: left - origin.left, top: top - origin.top, width, height };
  };
  const seams: DrawnSeam[] = [];
  const movables: Movable[] = [];
  const lay = (holder: AppElement, slot: Slot, held: readonly AppElement[]): void => {
    const drawn = held.flatMap((element, at) => {
      const box = boxOf(element);
      return box ? [{ element, at, box }] : [];
    });
    const within = boxOf(holder);
    const seam = (at: number, box: Box, upright: boolean): void => {
      const [before, behind] = [held[at - 1], held[at]];
      const about = before ? `after ${before.name}` : behind ? `before ${behind.name}` : `in ${holder.name}`;
      seams.push({ key: `${slot.in} ${slot.list} ${at}`, slot, at, box, upright, about });
    };
    const [first] = drawn;
    if (!first) {
      if (within) seam(0, under(within), false);
      return;
    }
    const sideways = slot.list === 'columns';
    seam(
      first.at,
      sideways ? beside(first.box, -1) : { ...first.box, top: first.box.top - THICK, height: THICK },
      sideways,
    );
    drawn.forEach(({ element, at, box }, n) => {
      movables.push({ element, slot, box });
      const next = drawn[n + 1]?.box;
      const upright =
        sideways ||
        (next !== undefined && Math.abs(next.top - box.top) < THICK && next.left >= box.left + box.width);
      seam(at + 1, upright ? beside(box, 1) : under(box), upright);
    });
  };
  const sections = (holder: AppElement): void => {
    const held = holder.contents.filter(({ kind }) => kind === 'section');
    lay(holder, { in: holder.id, list: 'sections' }, held);
    for (const section of held) {
      if (!boxOf(section)) continue;
      lay(section, { in: section.id, list: 'parts' }, section.contents);
      for (const part of section.contents)
        if (part.kind === 'list' && boxOf(part))
          lay(
            part,
            { in: part.id, list: 'columns' },
            part.contents.filter(({ kind }) => kind === 'column'),
          );
    }
  };
  sections(screen);
  for (const face of screen.contents)
    if (face.kind === 'face' && (boxOf(face) || face.contents.some(boxOf))) sections(face);
  return { seams, movables };
}

const under = ({ left, top, width, height }: Box): Box => ({ left, width, top: top + height, height: THICK });

const beside = ({ left, top, width, height }: Box, side: 1 | -1): Box => ({
  left: side > 0 ? left + width + HALF - THICK / 2 - 3 : left - THICK / 2,
  width: THICK,
  top,
  height,
});
