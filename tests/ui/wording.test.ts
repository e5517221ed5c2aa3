import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { expect, it } from 'vitest';

/** What nobody is to read any more, and what to write instead (docs/voice.md). */
const NOT_AGAIN: readonly (readonly [RegExp, string])[] = [
  [/\bDo it\b|\bMake it\b|\bLeave it\b|\bTake it away\b/, 'the verb with its object; Cancel'],
  [/\(needed\)|\bis needed\b/, 'required'],
  [/\bsomebody\b|\banybody\b|\beverybody\b/i, 'someone, anyone, everyone'],
  [/\be-mail\b/i, 'email'],
  [/\banew\b|\bmeanwhile\b|\bby now\b/i, 'again; in the meantime'],
  [/\bswitched (off|on)\b/i, 'disabled, enabled'],
  [/\bset aside\b/i, 'dismissed'],
  [/\blook as\b|\bstand(s|ing)? in for\b/i, 'view as; act as'],
  [/\bhand(s|ed)? out\b/i, 'assign'],
  [/\bWhoever\b|\bwhom\b/, 'Anyone with …, people who …'],
  [/\btake(s|n)? (it |them )?away\b/i, 'delete, remove'],
  [/\bmade up\b|\bmake some up\b/i, 'custom; generate'],
  [/\blet (them |somebody |someone )?(in|out)\b/i, 'invite, remove'],
  [/\bsurprises?\b/i, 'mismatch'],
  [/\bis no (moment|day|level|id)\b/i, 'is not a valid …'],
  [/\bpoints? to (a|an|the) /i, 'refers to'],
  [/\w …$/, '… directly after the word'],
];

function* files(folder: string): Generator<string> {
  for (const entry of readdirSync(folder, { withFileTypes: true })) {
    const path = join(folder, entry.name);
    if (entry.isDirectory()) yield* files(path);
    else if (/\.tsx?$/.test(entry.name)) yield path;
  }
}

/** The texts in a file that somebody may read: strings that hold a space, or stand in JSX. */
function textsIn(path: string): string[] {
  const source = ts.createSourceFile(path, readFileSync(path, 'utf8'), ts.ScriptTarget.Latest, true);
  const found: string[] = [];
  const visit = (node: ts.Node): void => {
    if (ts.isJsxText(node)) found.push(node.text.replace(/\s+/g, ' ').trim());
    else if (
      ts.isStringLiteralLike(node) ||
      ts.isTemplateHead(node) ||
      ts.isTemplateMiddleOrTemplateTail(node)
    ) {
      const isCode = ts.isImportDeclaration(node.parent) || ts.isLiteralTypeNode(node.parent);
      const isKey = ts.isPropertyAssignment(node.parent) && node.parent.name === node;
      if (!isCode && !isKey && (node.text.includes(' ') || ts.isJsxAttribute(node.parent)))
        found.push(node.text);
    }
    ts.forEachChild(node, visit);
  };
  visit(source);
  return found;
}

it('no text says what was given up', () => {
  const wrong = ['app', 'cli', 'core', 'server', 'ui'].flatMap((layer) =>
    [...files(`src/${layer}`)].flatMap((path) =>
      textsIn(path).flatMap((text) =>
        NOT_AGAIN.flatMap(([phrase, instead]) =>
          phrase.test(text) ? [`${path}: “${text.slice(0, 90)}” (${instead})`] : [],
        ),
      ),
    ),
  );
  expect(wrong).toEqual([]);
});
