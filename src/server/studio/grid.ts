import { cellOf } from '@/core/access/cells';
import { compile } from '@/core/access/compile';
import {
  rightNow,
  SIGNED_IN,
  SIGNED_OUT,
  viewerOfGroup,
  viewerOfPerson,
  viewerOfRole,
  type Viewer,
} from '@/core/access/viewer';
import { answerInWords, kindInWords } from '@/core/edit/words';
import type { Definition } from '@/core/model/definition';
import { isDataDoor, type Element } from '@/core/model/tree';
import { draftOf } from '../drafts/draft';
import { releaseInForce } from '../drafts/release';
import { personById } from '../people/read';
import type { Workplace } from './builder';

/** The whole grid in words: for a file, and for paper. */
export interface GridSheet {
  readonly definition: Definition;
  readonly revision: number;
  /** The release in force, and whether the draft is the same. */
  readonly release: { readonly number: number; readonly at: Date; readonly same: boolean } | undefined;
  readonly columns: readonly string[];
  readonly rows: readonly {
    readonly element: Element;
    readonly depth: number;
    readonly kind: string;
    readonly cells: readonly { readonly word: string; readonly own: boolean; readonly limited: boolean }[];
  }[];
}

/** The grid of the draft, with the columns that this builder has: login states, roles, groups, pinned people. */
export async function gridSheet({ applicationId, pins }: Workplace): Promise<GridSheet> {
  const { definition, revision } = await draftOf(applicationId);
  const inForce = await releaseInForce(applicationId);
  const people = await Promise.all(pins.map((id) => personById(applicationId, id)));
  const viewers: (readonly [string, Viewer])[] = [
    ['Signed out', SIGNED_OUT],
    ['Signed in', SIGNED_IN],
    ...definition.roles.map(({ id, name }) => [name, viewerOfRole(id)] as const),
    ...definition.groups.map(({ id, name }) => [`Group: ${name}`, viewerOfGroup(id)] as const),
    ...people.flatMap((one) => (one ? [[one.name, viewerOfPerson(one)] as const] : [])),
  ];
  const compiled = compile(definition);
  const at = rightNow();
  const accesses = viewers.map(([, viewer]) => compiled.access(viewer, at));
  const depthOf = (element: Element): number => (element.container ? depthOf(element.container) + 1 : 0);
  const ordered = compiled.tree.elements.toSorted((a, b) => Number(isDataDoor(a)) - Number(isDataDoor(b)));
  return {
    definition,
    revision,
    release: inForce && {
      number: inForce.number,
      at: inForce.at,
      same: inForce.revision === revision,
    },
    columns: viewers.map(([name]) => name),
    rows: ordered.map((element) => ({
      element,
      depth: depthOf(element),
      kind: kindInWords(element.kind),
      cells: accesses.map((access) => {
        const { answer, own, byContainer, byDoor } = cellOf(access, element);
        return { word: answerInWords(element.kind, answer), own, limited: byContainer || byDoor };
      }),
    })),
  };
}
