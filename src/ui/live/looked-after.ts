'use client';

import { type RoleOffer } from '../parts/give-role';

export interface Given {
  readonly role: string;
  readonly name: string;
  readonly unit?: string;
  readonly from?: string;
  readonly until?: string;
  /** May the viewer take it away? */
  readonly mine: boolean;
}

export interface Person {
  readonly id: string;
  readonly name: string;
  readonly email: string;
  readonly active: boolean;
  readonly assignments: readonly Given[];
  readonly link: boolean;
  readonly emailToo: boolean;
}

export interface Found {
  readonly people: readonly Person[];
  readonly total: number;
  readonly offers: { readonly roles: readonly RoleOffer[] };
}
