import { json } from '../body';
import type { SignedIn } from '../credentials';
import { ofStudio } from '../route';

/** Signs a builder in. */
export const signIn = ofStudio('POST', '/session', 'anybody', {
  body: json(async () => (await import('../schemas/credentials')).credentialsSchema),
}).answers<SignedIn>();

/** Signs whoever it is out. */
export const signOut = ofStudio('DELETE', '/session', 'anybody');

/** Gives oneself another name. */
export const rename = ofStudio('PATCH', '/account', 'builder', {
  body: json(async () => (await import('../schemas/account')).renameSchema),
});

/** Chooses another password, knowing the one before. All other sessions end. */
export const changePassword = ofStudio('PUT', '/account', 'builder', {
  body: json(async () => (await import('../schemas/account')).changePasswordSchema),
});

/** Ends all other sessions of oneself. */
export const endOtherSessions = ofStudio('DELETE', '/account', 'builder');
