import { isStorable } from '../model/values/text';

/** A stretch of the text: from the first character to just after the last. */
export interface Span {
  readonly from: number;
  readonly to: number;
}

/** A piece of the text form. */
export type Token = Span &
  (
    | { readonly kind: 'word'; readonly text: string }
    | { readonly kind: 'id'; readonly text: string }
    | { readonly kind: 'string'; readonly text: string }
    | { readonly kind: 'number' | 'date' | 'moment' | 'time'; readonly text: string }
    | { readonly kind: 'sign'; readonly text: string }
    | { readonly kind: 'wrong'; readonly text: string; readonly message: string; readonly mend: string }
    | { readonly kind: 'end'; readonly text: '' }
  );

const FORMS: readonly (readonly [Exclude<Token['kind'], 'wrong' | 'end'>, RegExp])[] = [
  ['word', /[A-Za-z_][A-Za-z0-9_]*/y],
  ['id', /#[A-Za-z0-9_-]+/y],
  ['moment', /\d{4}-\d{2}-\d{2}T\d{2}:\d{2}(?::\d{2})?/y],
  ['date', /\d{4}-\d{2}-\d{2}(?![\d-])/y],
  ['time', /\d{1,2}:\d{2}/y],
  ['number', /\d+(?:\.\d+)?/y],
  ['string', /"(?:[^"\\\n]|\\.)*"/y],
  ['sign', /!=|<=|>=|<>|==|[=<>(),.+-]/y],
];

/** The text in pieces, with an `end` after the last. Nothing is refused here: what is no piece is `wrong`. */
export function tokensOf(text: string): Token[] {
  const tokens: Token[] = [];
  let at = 0;
  while (at < text.length) {
    if (/\s/.test(text[at] as string)) {
      at++;
      continue;
    }
    const token = tokenAt(text, at);
    tokens.push(token);
    at = token.to;
  }
  tokens.push({ kind: 'end', text: '', from: text.length, to: text.length });
  return tokens;
}

function tokenAt(text: string, from: number): Token {
  for (const [kind, form] of FORMS) {
    form.lastIndex = from;
    const found = form.exec(text)?.[0];
    if (found === undefined) continue;
    const span = { from, to: from + found.length };
    if (kind !== 'string') return { kind, text: found, ...span };
    try {
      const read = JSON.parse(found) as string;
      if (!isStorable(read))
        return wrong(
          text,
          from,
          span.to,
          'This text contains characters that cannot be stored.',
          'Remove the null character or incomplete surrogate pair.',
        );
      return { kind, text: read, ...span };
    } catch {
      return wrong(
        text,
        from,
        span.to,
        'This quoted text is not valid.',
        'Use only \\", \\\\, \\n or \\t as escapes.',
      );
    }
  }
  if (text[from] === '"')
    return wrong(text, from, text.length, 'The closing quote is missing.', 'Add " at the end of the text.');
  const letter = String.fromCodePoint(text.codePointAt(from) ?? 0);
  return wrong(
    text,
    from,
    from + letter.length,
    `“${letter}” has no meaning here.`,
    /[‘’“”']/.test(letter) ? 'Write text in straight double quotes: "like this".' : 'Remove it.',
  );
}

const wrong = (text: string, from: number, to: number, message: string, mend: string): Token => ({
  kind: 'wrong',
  text: text.slice(from, to),
  from,
  to,
  message,
  mend,
});
