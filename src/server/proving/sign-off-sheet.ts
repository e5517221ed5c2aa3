import { type GridSheet, sheetOf } from '../studio/grid';
import { signOffById } from './sign-offs';

/** What was signed off, on paper. */
export interface SignOffSheet {
  readonly sheet: GridSheet;
  readonly signed: {
    readonly title: string;
    readonly by: string;
    /** RFC 3339. */
    readonly at: string;
    readonly release: number | null;
    readonly sha256: string;
    readonly isWhole: boolean;
    /** Who held which roles. */
    readonly people: readonly { readonly name: string; readonly roles: string }[];
  };
}

/** A part of what was signed off, as it is printed. */
export async function signOffSheet(applicationId: string, id: string, part: number): Promise<SignOffSheet> {
  const { definition, revision, people, title, by, at, release, sha256, isWhole } = await signOffById(
    applicationId,
    id,
  );
  const roles = new Map(definition.roles.map(({ id: role, name }) => [role, name]));
  return {
    sheet: sheetOf({ definition, revision, release: undefined, people }, [], part),
    signed: {
      title,
      by,
      at: at.toISOString(),
      release,
      sha256,
      isWhole,
      people: people.map(({ name, active, assignments }) => ({
        name,
        roles: active
          ? assignments.map(({ role }) => roles.get(role) ?? role).join(', ') || 'no role'
          : 'account disabled',
      })),
    },
  };
}
