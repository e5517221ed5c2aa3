import type { Role, Screen } from '../model/definition';
import type { Line } from '../model/gate';
import type { Id } from '../model/id';

/** The version of the edits' format, kept with each. */
export const EDIT_FORMAT = 1;

/**
 * One small change of a definition. It names what it expects to find, so that it is refused rather
 * than lose what somebody else put there meanwhile.
 */
export type Edit =
  /** A follower gets lines of its own. */
  | { readonly do: 'startLines'; readonly gate: Id; readonly lines: readonly Line[] }
  /** A gate with just these lines follows again. */
  | { readonly do: 'follow'; readonly gate: Id; readonly lines: readonly Line[] }
  | { readonly do: 'addLine'; readonly gate: Id; readonly line: Line; readonly at: number }
  | { readonly do: 'removeLine'; readonly gate: Id; readonly line: Line; readonly at: number }
  | { readonly do: 'changeLine'; readonly gate: Id; readonly from: Line; readonly to: Line }
  | { readonly do: 'changeRole'; readonly from: Role; readonly to: Role }
  /** A new screen, whose gate starts as the application's setting says. */
  | {
      readonly do: 'addScreen';
      readonly area: Id;
      readonly at: number;
      readonly screen: Screen;
      readonly lines: readonly Line[];
    }
  | {
      readonly do: 'removeScreen';
      readonly area: Id;
      readonly at: number;
      readonly screen: Screen;
      readonly lines: readonly Line[];
    }
  /** Several that are done, undone and refused as one. */
  | { readonly do: 'together'; readonly edits: readonly Edit[] };

/** The edit that takes this one back. */
export function inverseOf(edit: Edit): Edit {
  switch (edit.do) {
    case 'startLines':
      return { ...edit, do: 'follow' };
    case 'follow':
      return { ...edit, do: 'startLines' };
    case 'addLine':
      return { ...edit, do: 'removeLine' };
    case 'removeLine':
      return { ...edit, do: 'addLine' };
    case 'changeLine':
    case 'changeRole':
      return { ...edit, from: edit.to, to: edit.from } as Edit;
    case 'addScreen':
      return { ...edit, do: 'removeScreen' };
    case 'removeScreen':
      return { ...edit, do: 'addScreen' };
    case 'together':
      return { do: 'together', edits: edit.edits.map(inverseOf).reverse() };
  }
}
