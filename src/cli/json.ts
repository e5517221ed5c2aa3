/** What is wrong in a JSON text, and where: lines and columns count from 1. */
export interface JsonFault {
  readonly line: number;
  readonly column: number;
  readonly message: string;
  readonly mend: string;
}

/** Something open that is not closed yet: an object with the keys that it has, or a list. */
interface Open {
  readonly sign: '{' | '[';
  readonly keys: Set<string>;
  readonly at: number;
}

const SPACE = /[ \t\r\n]*/y;
const STRING = /"(?:[^"\\\u0000-\u001f]|\\(?:["\\/bfnrt]|u[0-9a-fA-F]{4}))*"/y;
const PLAIN = /(?:-?(?:0|[1-9]\d*)(?:\.\d+)?(?:[eE][+-]?\d+)?|true|false|null)(?![\w.+-])/y;

/** What may come next. */
type Next = 'value' | 'value or end' | 'key' | 'key or end' | 'comma or end' | 'nothing';

/**
 * The first thing in a text that is no JSON (RFC 8259), or that different readers would read differently: a key
 * that is there twice (section 4). Undefined where there is none. Goes through the text once, never deep on the stack.
 */
export function faultInJson(text: string): JsonFault | undefined {
  const open: Open[] = [];
  let next: Next = 'value';
  let at = 0;
  const fault = (message: string, mend: string, where = at): JsonFault => ({
    ...placeOf(text, where),
    message,
    mend,
  });
  const take = (form: RegExp): string | undefined => {
    form.lastIndex = at;
    const found = form.exec(text)?.[0];
    if (found !== undefined) at += found.length;
    return found;
  };
  const after = (): Next => (open.length === 0 ? 'nothing' : 'comma or end');
  for (;;) {
    take(SPACE);
    const sign = text[at];
    const inside = open.at(-1);
    if (sign === undefined) {
      if (next === 'nothing') return undefined;
      if (!inside) return fault('The text is empty.', 'The file must contain a JSON object.');
      const { line } = placeOf(text, inside.at);
      return fault(
        `The text ends before the ${inside.sign === '{' ? 'object' : 'list'} that begins on line ${line} is closed.`,
        'The file may be incomplete. Export it again.',
      );
    }
    if (next === 'nothing') return fault('There is extra text after the end of the object.', 'Remove it.');
    if ((sign === '}' || sign === ']') && (next === 'comma or end' || next.endsWith(' or end'))) {
      if (sign !== (inside?.sign === '{' ? '}' : ']'))
        return fault(`${inside?.sign === '{' ? '}' : ']'} is missing here.`, `Add it before this ${sign}.`);
      open.pop();
      at++;
      next = after();
      continue;
    }
    if (next === 'comma or end') {
      if (sign !== ',') return fault('A comma is missing here.', 'Add a comma before this.');
      at++;
      next = inside?.sign === '{' ? 'key' : 'value';
      continue;
    }
    if (next === 'key' || next === 'key or end') {
      const begins = at;
      const found = take(STRING);
      if (found === undefined)
        return fault('A key in double quotes is missing here.', 'Write it as "key": value.');
      const key = JSON.parse(found) as string;
      if (inside?.keys.has(key)) return fault(`The key ${found} appears twice.`, 'Keep one of them.', begins);
      inside?.keys.add(key);
      take(SPACE);
      if (text[at] !== ':') return fault('A colon is missing here.', `Add a colon after ${found}.`);
      at++;
      next = 'value';
      continue;
    }
    if (sign === '{' || sign === '[') {
      open.push({ sign, keys: new Set(), at });
      at++;
      next = sign === '{' ? 'key or end' : 'value or end';
      continue;
    }
    if (take(STRING) === undefined && take(PLAIN) === undefined)
      return sign === '"'
        ? fault('This quoted text is not valid.', 'Add the closing quote, and write line breaks as \\n.')
        : fault(
            'A value is missing here.',
            'Use text in double quotes, a number, true, false, null, {…} or […].',
          );
    next = after();
  }
}

function placeOf(text: string, at: number): { readonly line: number; readonly column: number } {
  const before = text.slice(0, at);
  return { line: before.split('\n').length, column: at - before.lastIndexOf('\n') };
}
