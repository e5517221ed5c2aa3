import type * as yup from 'yup';
import type { Definition } from '../definition';
import type { Id } from '../id';
import type { ChoiceOption, Value, ValueType } from '../value-type';
import type { DisplayFormat } from './formats';

/** What names in a type stand for. */
export type Names = Pick<Definition, 'entities' | 'units'>;

/** Something that is kept by its id and called by its name. */
export type Named = Pick<ChoiceOption, 'id' | 'name'>;

/** In which form values are compared, and read by SQL: what is of another form is missing. */
export type Form = 'text' | 'decimal' | 'boolean';

/** How a constant is written in the text form of conditions (condition/literals.ts). */
export type Literal = 'string' | 'number' | 'date' | 'time' | 'moment' | 'weekday' | 'truth' | 'name' | 'id';

/** What conditions can ask of values of a type: of stored ones, and of readings of the clock alike. */
export interface ComparedKind<T> {
  readonly form: Form;
  readonly literal: Literal;
  /** Types of one family are compared with each other. */
  readonly family: string;
  /** Stand the values in an order? Have texts words in them? */
  readonly asks: 'equality' | 'order' | 'words';
  /** Can it be one of several constants? */
  readonly oneOf: boolean;
  /** Can values of two types of the family be compared, where that is not said by the family alone? */
  readonly comparable?: (a: T, b: T) => boolean;
  /** The type in a sentence: `a date`, `one of Sound, Stable, Fragile`. */
  readonly sentence: (type: T, names: Names) => string;
  /** A constant in plain form, or undefined where the type cannot hold it. */
  readonly constant: (value: string, type: T, names: Names) => string | undefined;
  /** All values, where they are few and have names; undefined where they cannot be listed. */
  readonly listed?: (type: T, names: Names) => readonly Named[];
  /** Of decimals: so many digits stand after the point at most. */
  readonly places?: (type: T) => number;
  /** A constant as an example for people. Of listed values the first is taken. */
  readonly example?: string;
  /** What a comparison starts with; of listed values the first. */
  readonly start?: (today: string) => string;
}

/** Records by what they are called, for fields that point or pointed to them. */
export interface Pointing {
  readonly called: (entity: Id, label: string) => Id | undefined;
  readonly labelOf: (entity: Id, id: Id) => string | undefined;
}

/** What texts are read by. */
export interface ReadBy {
  readonly definition: Pick<Definition, 'language' | 'units'>;
  readonly pointing: Pointing;
  /** `2026-11-26`: years of two figures are those around it. */
  readonly today: string;
}

/** Everything about a type of values. Its box is in `ui/parts/value-box.tsx`, its SQL follows from its form. */
export interface ValueKind<T extends ValueType> extends ComparedKind<T> {
  /** What a builder can choose: each with what it is called. `id` makes new ids. */
  readonly choices: (names: Pick<Names, 'entities'>, id: () => Id) => readonly (readonly [string, T])[];
  /** What a field holds, in a few words: `whole number`. */
  readonly label: (type: T, names: Pick<Names, 'entities'>) => string;
  /** What may be stored, in its plain form. */
  readonly schema: (type: T) => yup.Schema;
  /** What tells types of the kind apart by what can be stored under them, where something does. */
  readonly key?: (type: T) => string;
  /** Can each value of the one type stay as it is under the other? By default where their keys are the same. */
  readonly holdsAll?: (from: T, to: T) => boolean;
  /** The value in words for people. Of what is listed its name. */
  readonly show?: (value: Value, manner: DisplayFormat) => string;
  /** Reads what people write, in any of the ways that they do; of what is listed by name or id. What it needs is looked up once. */
  readonly reader?: (type: T, by: ReadBy) => (text: string) => Value | undefined;
  /** Can its values be added up? They stand at the end of their column. */
  readonly measured?: boolean;
  /** Can a chart count by it, and before which others? */
  readonly countedBy?: number;
}
