import type { Definition } from '../model/definition';
import type { Who } from '../model/gate';
import type { Id } from '../model/id';
import { withIncluded } from '../model/tree';
import type { Truth } from '../condition/condition';

/** A person of the application, as builders and decisions know them. */
export interface Person {
  readonly id: Id;
  readonly name: string;
  /** Not switched off. */
  readonly active: boolean;
  /** Roles assigned directly, where the assignment counts now. */
  readonly roles: readonly Id[];
}

/** Through whose eyes we look. */
export type Viewer =
  | { readonly kind: 'signed-out' }
  | {
      readonly kind: 'signed-in';
      /** None for a bare role. */
      readonly person?: Id;
      /** The roles assigned directly, where the assignment counts now. */
      readonly roles: readonly Id[];
    };

export const SIGNED_OUT: Viewer = { kind: 'signed-out' };
export const viewerOfRole = (role: Id): Viewer => ({ kind: 'signed-in', roles: [role] });
export const viewerOfPerson = (person: Pick<Person, 'id' | 'roles'>): Viewer => ({
  kind: 'signed-in',
  person: person.id,
  roles: person.roles,
});

/** A key for whom a line speaks of, as compiled access keeps its sets under it. */
export function subjectOf(who: Who): string {
  if (who.kind === 'role') return who.exactly ? `exactly:${who.role}` : `role:${who.role}`;
  return who.kind === 'person' ? `person:${who.person}` : who.kind;
}

/** All the subjects that a viewer is, in a steady order. */
export function subjectsOf(definition: Definition, viewer: Viewer): string[] {
  if (viewer.kind === 'signed-out') return ['everyone', 'signed-out'];
  return [
    'everyone',
    'signed-in',
    ...[...withIncluded(definition, viewer.roles)].sort().map((role) => `role:${role}`),
    ...[...new Set(viewer.roles)].sort().map((role) => `exactly:${role}`),
    ...(viewer.person === undefined ? [] : [`person:${viewer.person}`]),
  ];
}

/** Whether the line's who is this viewer. A role that is gone cannot be told: it gives nothing and blocks all. */
export function isSpokenOf(definition: Definition, viewer: Viewer, who: Who): Truth {
  if (who.kind === 'role' && !definition.roles.some((role) => role.id === who.role)) return undefined;
  return subjectsOf(definition, viewer).includes(subjectOf(who));
}
