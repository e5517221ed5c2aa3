import {
  addressOf,
  type Compiled,
  type LookPage,
  NONE,
  type ShownFrame,
  type ShownMenuItem,
  type ShownScreen,
} from '@/core/access';
import { type AppElement, frameOf, type MenuItem, type Screen } from '@/core/model';
import type {
  DrawnList,
  DrawnMenuItem,
  DrawnPart,
  DrawnScreen,
  DrawnSection,
  GhostOf,
  GhostPart,
} from '../../live/drawn';

/**
 * The screen as it was sent, with what the viewer did not get put in its place. Only names come in, from
 * the definition that the builder has anyway: no value of a record is behind a ghost.
 */
export function withGhosts(
  compiled: Compiled,
  screen: Screen,
  sent: ShownScreen | undefined,
  levels: Levels,
  shaping?: { readonly face: string | undefined },
): DrawnScreen {
  const element = compiled.tree.need(screen.id, 'screen');
  // Of the faces, the one that is being shaped is drawn, else the one that was sent, else the first.
  const faces = element.contents.filter((one) => one.kind === 'face');
  const face =
    faces.find(({ id }) => id === shaping?.face) ??
    faces.find((one) => sent?.sections.some(({ id }) => one.contents.some((part) => part.id === id))) ??
    faces[0];
  const all = [...element.contents.filter((one) => one.kind === 'section'), ...(face?.contents ?? [])];
  const sections = all.map((section): DrawnSection => {
    const shown = sent?.sections.find((one) => one.id === section.id);
    if (shown?.parts.some((one) => one.id === section.id)) return shown;
    const parts = section.contents.map((part): DrawnPart => {
      const there = shown?.parts.find((one) => one.id === part.id);
      if (!there) return ghostPart(part, ghostOf(levels, part.id));
      return there.kind === 'list' ? withGhostColumns(part, there, levels) : there;
    });
    return { id: section.id, name: section.name, parts };
  });
  const named = faces.map(({ id, name }) => ({ id, name, shown: id === face?.id }));
  return {
    id: screen.id,
    heading: screen.name,
    ...sent,
    ...(shaping && named.length > 0 && { faces: named }),
    sections,
  };
}

type Levels = LookPage['levels'];

/** What the viewer could get all the same is what some of its people get: else it would have been sent. */
const ghostOf = (levels: Levels, id: string): GhostOf => ((levels[id]?.most ?? NONE) > NONE ? 'some' : 'not');

function ghostPart(element: AppElement, ghost: GhostOf): GhostPart {
  const of =
    element.kind === 'button' ||
    element.kind === 'list' ||
    element.kind === 'chart' ||
    element.kind === 'text' ||
    element.kind === 'people'
      ? element.kind
      : 'field';
  return { kind: 'ghost', ghost, id: element.id, of, name: element.name };
}

function withGhostColumns(element: AppElement, list: DrawnList, levels: Levels): DrawnList {
  const columns = element.contents.flatMap((column) => {
    if (column.kind !== 'column') return [];
    const there = list.columns.find((one) => one.id === column.id);
    return [
      there ?? {
        id: column.id,
        field: column.node.field,
        label: column.name,
        align: 'start' as const,
        ghost: ghostOf(levels, column.id),
      },
    ];
  });
  return { ...list, columns };
}

/**
 * What stands around a screen with all that the viewer does not get: the frame of its area, also where the screen is
 * closed to them and the application's was sent.
 */
export function frameWithGhosts(
  { definition }: Compiled,
  sent: ShownFrame,
  screen: Screen | undefined,
): ShownFrame {
  const own = frameOf(definition, screen);
  return own === undefined || own.id === sent.id ? sent : { id: own.id, name: own.name, menu: [] };
}

/** The menu as it was sent, with the items that the viewer did not get. */
export function withGhostItems(compiled: Compiled, frame: ShownFrame, levels: Levels): DrawnMenuItem[] {
  const merge = (items: readonly MenuItem[], shown: readonly ShownMenuItem[]): DrawnMenuItem[] =>
    items.map((item) => {
      const there = shown.find((one) => one.id === item.id);
      const inside = merge(item.items, there?.items ?? []);
      if (there) return { ...there, items: inside };
      const address = item.screen && addressOf(compiled.tree.need(item.screen, 'screen').node);
      // One that only holds others is there for whom some of these are.
      const ghost =
        item.screen || item.items.length === 0
          ? ghostOf(levels, item.id)
          : inside.some((one) => !one.ghost || one.ghost === 'some')
            ? 'some'
            : 'not';
      // They get it, on a screen that they do not.
      const got = item.screen !== undefined && (levels[item.id]?.least ?? NONE) > NONE;
      return {
        id: item.id,
        name: item.name,
        items: inside,
        ...(!got && { ghost }),
        ...(address && { address }),
      };
    });
  const menu = compiled.tree.need(frame.id, 'menu').node;
  return merge(menu.items, frame.menu);
}
