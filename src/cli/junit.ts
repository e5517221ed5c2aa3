/** One case of a report: it failed where it says how. */
export interface ReportedCase {
  readonly name: string;
  /** What groups it with others. */
  readonly of: string;
  readonly failure?: string | undefined;
  /** It could not be asked. */
  readonly error?: string | undefined;
}

const ESCAPES: Readonly<Record<string, string>> = {
  '&': '&amp;',
  '<': '&lt;',
  '>': '&gt;',
  '"': '&quot;',
  '\n': '&#10;',
};

/** Text as an attribute's value (XML 1.0, 2.2 and 2.4): characters that no document may hold become a question mark. */
const attribute = (text: string): string =>
  text
    .replace(/[^\t\n\r\u0020-\ud7ff\ue000-\ufffd\u{10000}-\u{10ffff}]/gu, '?')
    .replace(/[&<>"\n]/g, (one) => ESCAPES[one] ?? one);

/** A report as continuous integration reads it: JUnit's XML, one suite. */
export function junit(suite: string, cases: readonly ReportedCase[]): string {
  const count = (key: 'failure' | 'error'): number => cases.filter((one) => one[key] !== undefined).length;
  const said = (tag: 'failure' | 'error', message: string | undefined): string =>
    message === undefined ? '' : `<${tag} message="${attribute(message)}"/>`;
  return [
    '<?xml version="1.0" encoding="UTF-8"?>',
    `<testsuites><testsuite name="${attribute(suite)}" tests="${cases.length}" failures="${count('failure')}" errors="${count('error')}">`,
    ...cases.map(
      ({ name, of, failure, error }) =>
        `<testcase classname="${attribute(of)}" name="${attribute(name)}">${said('failure', failure)}${said('error', error)}</testcase>`,
    ),
    '</testsuite></testsuites>',
    '',
  ].join('\n');
}
