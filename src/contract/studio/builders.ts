import { json } from '../body';
import type { BuilderRole, LiveRight } from '../builder-roles';
import { ofApplication, ofStudio } from '../route';

const schemas = () => import('../schemas/builders');

/** What a builder may do with what is live. */
export interface LiveRights {
  readonly live: LiveRight;
  readonly people: boolean;
  readonly releases: boolean;
}

/** A builder of an application. */
export interface BuilderRow extends LiveRights {
  readonly id: string;
  readonly name: string;
  /** For owners only. */
  readonly email?: string;
  readonly role: BuilderRole;
}

/** Somebody who was let in and has not opened their link yet. */
export interface Invitation {
  readonly id: string;
  readonly email: string;
  readonly name: string;
  readonly role: BuilderRole;
}

/** The builders of the application, and what each may do; for its owners, also who was let in and is not here yet. */
export const builders = ofApplication('GET', '/builders', 'read').answers<{
  readonly builders: readonly BuilderRow[];
  readonly invited: readonly Invitation[];
}>();

/** Lets somebody in as a builder, by a link that is sent to their address. */
export const inviteBuilder = ofApplication(
  'POST',
  '/builders',
  { owner: 'can invite builders' },
  {
    body: json(schemas, 'inviteBuilderSchema'),
  },
);

/** Gives a builder rights to what is live, or takes them. */
export const giveRights = ofApplication(
  'PUT',
  '/builders',
  { owner: 'can give access to live data' },
  {
    body: json(schemas, 'giveRightsSchema'),
  },
);

/** Gives a builder another role in the application. */
export const changeBuilder = ofApplication(
  'PATCH',
  '/builders/:id',
  { owner: 'can change what builders may do' },
  {
    body: json(schemas, 'changeBuilderSchema'),
  },
);

/** Lets a builder out of the application: everybody themselves, its owners also others. */
export const letBuilderOut = ofApplication('DELETE', '/builders/:id', 'read');

/** Sends a new link to somebody who has not opened theirs yet. */
export const sendInvitationAgain = ofApplication('POST', '/invitations/:id/link', {
  owner: 'can invite builders',
});

/** Takes an invitation back before it is opened. */
export const takeBackInvitation = ofApplication('DELETE', '/invitations/:id', {
  owner: 'can invite builders',
});

/** Whom this builder keeps in their rail. Theirs alone, so reviewers may too. */
export const keepPins = ofApplication('PUT', '/pins', 'read', {
  body: json(schemas, 'keepPinsSchema'),
});

/** Opens an invitation: for who is signed in; or, with a password, for who gets an account by it. */
export const join = ofStudio('POST', '/join', 'anybody', {
  body: json(schemas, 'joinSchema'),
});
