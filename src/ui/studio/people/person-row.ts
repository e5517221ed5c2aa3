import type { Person } from '@/core/access';

export interface PersonRow extends Person {
  readonly confirmed: boolean;
  readonly startScreen: string | null;
}

export interface FoundPeople {
  readonly people: readonly PersonRow[];
  readonly total: number;
}
