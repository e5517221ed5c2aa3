/** Where to go once somebody is signed in, and how many wrong tries there were in their name. */
export interface SignedIn {
  readonly to: string;
  readonly failed: number;
}
