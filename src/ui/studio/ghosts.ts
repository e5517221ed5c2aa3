import type { Compiled } from '@/core/access/compile';
import type { ShownMenuItem, ShownScreen } from '@/core/access/shown';
import { addressOf } from '@/core/access/resolve';
import type { MenuItem, Screen } from '@/core/model/definition';
import type { Element } from '@/core/model/tree';
import type {
  DrawnList,
  DrawnMenuItem,
  DrawnPart,
  DrawnScreen,
  DrawnSection,
  GhostPart,
} from '../live/drawn';

/**
 * The screen as it was sent, with what the viewer did not get put in its place. Only names come in, from
 * the definition that the builder has anyway: no value of a record is behind a ghost.
 */
export function withGhosts(compiled: Compiled, screen: Screen, sent: ShownScreen | undefined): DrawnScreen {
  const element = compiled.tree.need(screen.id, 'screen');
  // Of the faces, the one that was sent is drawn, else the first.
  const faces = element.contents.filter((one) => one.kind === 'face');
  const face = faces.find((one) =>
    sent?.sections.some(({ id }) => one.contents.some((part) => part.id === id)),
  );
  const all = [
    ...element.contents.filter((one) => one.kind === 'section'),
    ...((face ?? faces[0])?.contents ?? []),
  ];
  const sections = all.map((section): DrawnSection => {
    const shown = sent?.sections.find((one) => one.id === section.id);
    if (shown?.parts.some((one) => one.id === section.id)) return shown;
    const parts = section.contents.map((part): DrawnPart => {
      const there = shown?.parts.find((one) => one.id === part.id);
      if (!there) return ghostOf(part);
      return there.kind === 'list' ? withGhostColumns(part, there) : there;
    });
    return { id: section.id, name: section.name, parts };
  });
  return { id: screen.id, heading: screen.name, ...sent, sections };
}

function ghostOf(element: Element): GhostPart {
  const of =
    element.kind === 'button' ||
    element.kind === 'list' ||
    element.kind === 'text' ||
    element.kind === 'people'
      ? element.kind
      : 'field';
  return { kind: 'ghost', id: element.id, of, name: element.name };
}

function withGhostColumns(element: Element, list: DrawnList): DrawnList {
  const columns = element.contents.flatMap((column) => {
    if (column.kind !== 'column') return [];
    const there = list.columns.find((one) => one.id === column.id);
    return [
      there ?? {
        id: column.id,
        field: column.node.field,
        label: column.name,
        align: 'start' as const,
        ghost: true,
      },
    ];
  });
  return { ...list, columns };
}

/** The menu as it was sent, with the items that the viewer did not get. */
export function withGhostItems(compiled: Compiled, sent: readonly ShownMenuItem[]): DrawnMenuItem[] {
  const merge = (items: readonly MenuItem[], shown: readonly ShownMenuItem[]): DrawnMenuItem[] =>
    items.map((item) => {
      const there = shown.find((one) => one.id === item.id);
      const inside = merge(item.items, there?.items ?? []);
      if (there) return { ...there, items: inside };
      const address = item.screen && addressOf(compiled.tree.need(item.screen, 'screen').node);
      return { id: item.id, name: item.name, items: inside, ghost: true, ...(address && { address }) };
    });
  return merge(compiled.definition.menu.items, sent);
}
