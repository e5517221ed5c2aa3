import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import * as core from '@/core';
import { LARKFIELD } from '@/demo/definition';

/** What the examples can use beside the front door: the demo, and a Wednesday at noon. */
const AT_HAND = { ...core, LARKFIELD, at: { moment: Date.UTC(2026, 10, 25, 12) } };

const FRONT = new URL('../../src/core/index.ts', import.meta.url).pathname;
const OPTIONS = { module: ts.ModuleKind.NodeNext, moduleResolution: ts.ModuleResolutionKind.Bundler };
const program = ts.createProgram([FRONT], { ...OPTIONS, target: ts.ScriptTarget.ES2023, strict: true });
const checker = program.getTypeChecker();

/** The text of a name's doc comment, and its example. */
function docOf(symbol: ts.Symbol): { readonly text: string; readonly example: string } {
  const meant = symbol.flags & ts.SymbolFlags.Alias ? checker.getAliasedSymbol(symbol) : symbol;
  const example = meant.getJsDocTags(checker).find(({ name }) => name === 'example');
  return {
    text: ts.displayPartsToString(meant.getDocumentationComment(checker)),
    example: ts.displayPartsToString(example?.text),
  };
}

const front = checker.getSymbolAtLocation(program.getSourceFile(FRONT) as ts.SourceFile) as ts.Symbol;
const names = checker.getExportsOfModule(front).map((one) => ({ name: one.name, ...docOf(one) }));

/** Runs the lines of an example; each that ends with `// → value` has to be that. */
function run(example: string): number {
  let checks = 0;
  const lines = example.split('\n').map((line) => {
    const [, code, value] = /^(.*?);?\s*\/\/ → (.*)$/.exec(line) ?? [];
    if (code === undefined) return line;
    checks++;
    return `expect(${code}).toEqual(${value});`;
  });
  const body = ts.transpile(lines.join('\n'), { target: ts.ScriptTarget.ES2023 });
  new Function('expect', ...Object.keys(AT_HAND), body)(expect, ...Object.values(AT_HAND));
  return checks;
}

describe('the front door of the core', () => {
  it('has few names', () => {
    expect(names.length).toBeLessThan(30);
  });

  it.each(names)('$name says what it does, with an example that is true', ({ text, example }) => {
    expect(text.length).toBeGreaterThan(40);
    expect(run(example)).toBeGreaterThan(0);
  });
});
