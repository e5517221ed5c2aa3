/** Questions joined by *all* and *any*; true or false where no question is left. */
export type BooleanExpression<Question> =
  | boolean
  | { readonly all: readonly BooleanExpression<Question>[] }
  | { readonly any: readonly BooleanExpression<Question>[] }
  | Question;

/** All of them, folded: constants vanish, and what is left is as small as it was given. */
export function allOf<Question extends object>(
  ...parts: readonly BooleanExpression<Question>[]
): BooleanExpression<Question> {
  const [first, second] = parts;
  if (parts.length === 2 && first !== undefined && second !== undefined) {
    // By far the most are of two, and of constants.
    if (first === false || second === false) return false;
    if (first === true) return second;
    if (second === true) return first;
  }
  if (parts.includes(false)) return false;
  const open = parts.flatMap((part) =>
    part === true ? [] : typeof part === 'object' && 'all' in part ? part.all : [part],
  );
  return open.length < 2 ? (open[0] ?? true) : { all: open };
}

/** Any of them, folded. */
export function anyOf<Question extends object>(
  ...parts: readonly BooleanExpression<Question>[]
): BooleanExpression<Question> {
  const [first, second] = parts;
  if (parts.length === 2 && first !== undefined && second !== undefined) {
    if (first === true || second === true) return true;
    if (first === false) return second;
    if (second === false) return first;
  }
  if (parts.includes(true)) return true;
  const open = parts.flatMap((part) =>
    part === false ? [] : typeof part === 'object' && 'any' in part ? part.any : [part],
  );
  return open.length < 2 ? (open[0] ?? false) : { any: open };
}
