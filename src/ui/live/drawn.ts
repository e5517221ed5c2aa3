import type {
  ShownColumn,
  ShownList,
  ShownMenuItem,
  ShownPart,
  ShownScreen,
  ShownSection,
} from '@/core/access';

/** Why a ghost stands there: the viewer does not get it; or, of a kind of viewer, some of them do. */
export type GhostOf = 'not' | 'some';

/** A part that the viewer does not get: only its place and name, drawn in the studio. */
export interface GhostPart {
  readonly kind: 'ghost';
  readonly ghost: GhostOf;
  readonly id: string;
  readonly of: 'field' | 'button' | 'list' | 'chart' | 'text' | 'people';
  readonly name: string;
}

/** What a screen is drawn from. What the server sends can be drawn as it is; the studio adds ghosts. */
export interface DrawnScreen extends Omit<ShownScreen, 'sections'> {
  readonly sections: readonly DrawnSection[];
}

export interface DrawnSection extends Omit<ShownSection, 'parts'> {
  readonly parts: readonly DrawnPart[];
}

export type DrawnPart = Exclude<ShownPart, ShownList> | DrawnList | GhostPart;

export interface DrawnList extends Omit<ShownList, 'columns'> {
  readonly columns: readonly (ShownColumn & { readonly ghost?: GhostOf })[];
}

export interface DrawnMenuItem extends Omit<ShownMenuItem, 'items'> {
  readonly items: readonly DrawnMenuItem[];
  readonly ghost?: GhostOf;
}
