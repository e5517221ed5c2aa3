import { json } from '../body';
import type { SignedIn } from '../credentials';
import { ofStudio } from '../route';

const credentialsSchemas = () => import('../schemas/credentials');
const schemas = () => import('../schemas/account');

/** Signs a builder in. */
export const signIn = ofStudio('POST', '/session', 'anybody', {
  body: json(credentialsSchemas, 'credentialsSchema'),
}).answers<SignedIn>();

/** Signs whoever it is out. */
export const signOut = ofStudio('DELETE', '/session', 'anybody');

/** Gives oneself another name. */
export const rename = ofStudio('PATCH', '/account', 'builder', {
  body: json(schemas, 'renameSchema'),
});

/** Chooses another password, knowing the one before. All other sessions end. */
export const changePassword = ofStudio('PUT', '/account', 'builder', {
  body: json(schemas, 'changePasswordSchema'),
});

/** Ends all other sessions of oneself. */
export const endOtherSessions = ofStudio('DELETE', '/account', 'builder');
