import type { Assignment } from '@/core/access';
import type { Values } from '@/core/model';

/** What is written of a person; what is left out stays as it is. */
export interface PersonInput {
  readonly name?: string;
  readonly email?: string;
  readonly active?: boolean;
  readonly homeUnit?: string | null;
  readonly startScreen?: string | null;
  readonly attributes?: Values;
  readonly assignments?: readonly Assignment[];
}

/** What is changed of a person: of their roles single ones, so that nobody writes back what another has changed. */
export interface PersonChange extends Omit<PersonInput, 'assignments'> {
  readonly give?: readonly Assignment[];
  readonly take?: readonly Assignment[];
}
