import { compile } from '@/core';
import {
  FieldNumbers,
  lacking,
  type Mark,
  MarkFinder,
  type Predicted,
  type Predictor,
  type Surprise,
} from '@/core/sweep';
import type { Id } from '@/core/model';
import type { Answer } from './asker';
import type { Case, Reading } from './cases/case';
import { type Copy, ownId } from './copy';

type MismatchDetails = Omit<Surprise, 'viewer'>;
type Tell = (what: MismatchDetails['what'], said: string, element?: string) => void;

/** How many records a list says that there are, in JSON and in JSON within JSON. */
const TOTALS = /\\*"total\\*":(\d+)/g;

/** Sums are of decimals, written as numbers: so much of them may differ. */
const ROUNDED = 1e-9;

/** What the points of a chart come to together, as an answer has them; undefined where it has none. */
function drawnSum(body: string, chart: string): number | undefined {
  const points = new RegExp(`\\\\*"${chart}\\\\*":\\[(.*?)\\]`).exec(body)?.[1];
  if (points === undefined) return undefined;
  return [...points.matchAll(/\\*"value\\*":(-?[\d.]+)/g)].reduce((sum, [, n]) => sum + Number(n), 0);
}

/** Holds an answer against what should have come. */
export class Comparing {
  private readonly finder: MarkFinder;
  private readonly fields: FieldNumbers;
  /** What this viewer was answered first, of all that must be answered alike. */
  private readonly first = new Map<string, string>();

  constructor(private readonly copy: Copy) {
    this.fields = new FieldNumbers(copy.definition);
    this.finder = new MarkFinder(copy.definition, copy.records, this.fields);
  }

  get marks(): MarkFinder {
    return this.finder;
  }

  /** From now on it is somebody else who asks. */
  nextViewer(): void {
    this.first.clear();
  }

  /** What is otherwise than it should be. */
  surprises(one: Case, answer: Answer, predictor: Predictor): MismatchDetails[] {
    const told: MismatchDetails[] = [];
    const tell: Tell = (what, said, element = one.about) =>
      void told.push({
        request: this.requestOf(one),
        what,
        said,
        ...(element !== undefined && { element: ownId(this.copy, element) }),
      });
    if ('refused' in one && answer.status < 400)
      tell(
        'did',
        `The server accepted the request (${answer.status}) but should have refused it${one.since ? `: ${one.since}` : ''}.`,
      );
    if ('does' in one && answer.status >= 400)
      tell('did', `The server refused the request (${answer.status}) but should have accepted it.`);
    const expected = 'reads' in one ? one.predicted : 'does' in one ? one.does.predicted : undefined;
    const found = this.found(one, answer, expected);
    // Asked of the doors alone: what a page shows is worked out by code that the server has too.
    const by = 'does' in one && answer.status < 400 ? one.does.by : predictor;
    for (const mark of found.values())
      if (!by.mayKnow(mark, (number) => this.fields.at(number)?.id))
        tell(
          'shows',
          this.inWords(mark, 'is sent although it is closed to this viewer'),
          this.elementOf(mark),
        );
    if (answer.status === 405) tell('answers', 'The server does not support this request.');
    if (!/^cache-control\n[^\n]*no-store/im.test(answer.headers))
      tell('answers', 'The response may be cached, because “no-store” is missing.');
    if (this.isUnlike(one, answer))
      tell(
        'answers',
        'The response for a hidden item differs from the response for one that does not exist.',
      );
    if ('reads' in one) this.read(one, answer, found, by, tell);
    else if (expected && answer.status < 400) this.lacks(expected, found, tell);
    return told;
  }

  private read(
    one: Reading,
    answer: Answer,
    found: ReadonlyMap<string, Mark>,
    by: Predictor,
    tell: Tell,
  ): void {
    const { predicted } = one;
    if (!statusFits(one, answer)) {
      const to = answer.location && ` to ${answer.location}`;
      return tell('answers', `The response is ${answer.status}${to} but should be “${predicted.is}”.`);
    }
    for (const [key, mark] of found) {
      if (mark.of !== 'value' || predicted.marks.has(key)) continue;
      const field = this.fields.at(mark.field)?.id;
      if (predicted.charts.some(({ of }) => of !== undefined && of === field)) continue;
      if (by.mayKnow(mark, () => field))
        tell('shows', this.inWords(mark, 'is sent although nothing on the page shows it'), field);
    }
    if (predicted.is !== 'open') return;
    if (one.reads !== 'part') this.lacks(predicted, found, tell);
    const totals = new Set([...answer.body.matchAll(TOTALS)].map(([, total]) => Number(total)));
    const should = new Set(predicted.totals);
    if (
      should.size > 0 &&
      ([...totals].some((n) => !should.has(n)) || [...should].some((n) => !totals.has(n)))
    )
      tell(
        'counts',
        `The count is ${[...totals].join(', ') || 'missing'} but should be ${[...should].join(', ')}.`,
      );
    for (const { chart, sum } of predicted.charts) {
      const drawn = drawnSum(answer.body, chart);
      if (sum !== undefined && drawn !== undefined && Math.abs(drawn - sum) > Math.abs(sum) * ROUNDED)
        tell('counts', `The chart’s values add up to ${drawn} but should add up to ${sum}.`, chart);
    }
  }

  private isUnlike({ alike }: Case, { status, body }: Answer): boolean {
    if (!alike) return false;
    const said = `${status} ${body.replaceAll(alike.but, '…')}`;
    const first = this.first.get(alike.to) ?? said;
    this.first.set(alike.to, first);
    return said !== first;
  }

  private lacks({ marks }: Predicted, found: ReadonlyMap<string, Mark>, tell: Tell): void {
    for (const mark of lacking(marks, found))
      tell('lacks', this.inWords(mark, 'is missing'), this.elementOf(mark));
  }

  /** The marks in an answer. What was asked for is no news to who asked. */
  private found({ asking }: Case, { headers, body }: Answer, expected: Predicted | undefined) {
    // What is random may look like a mark.
    const [, nonce = '\n'] = /'nonce-([^']+)'/.exec(headers) ?? [];
    const found = this.finder.findInAnyForm(`${headers}\n${body}`.replaceAll(nonce, '\n'));
    const asked = this.finder.find(decodeURIComponent(asking.path) + JSON.stringify(asking.body ?? ''));
    for (const key of asked.keys()) if (!expected?.marks.has(key)) found.delete(key);
    return found;
  }

  /** The element that it is about, by its id in the application. */
  elementAbout({ about }: Case): Id | undefined {
    return about === undefined ? undefined : ownId(this.copy, about);
  }

  requestOf({ asking }: Case): string {
    const { method = 'GET', path, body } = asking;
    const sent = body === undefined ? '' : JSON.stringify({ ...body, password: undefined });
    const own = (text: string): string =>
      text.replace(/Ze\d+eZ/g, (id) => ownId(this.copy, id)).replace(/-ze\d+ez/g, '');
    const asked = `${method} ${own(path.replace(`/live/${this.copy.slug}`, '')) || '/'}`;
    return sent === '' ? asked : `${asked} ${shortened(own(sent))}`;
  }

  private elementOf(mark: Mark): string | undefined {
    if (mark.of === 'value') return this.fields.at(mark.field)?.id;
    if (mark.of === 'element') return compile(this.copy.definition).tree.elements[mark.number]?.id;
    return mark.of === 'record' ? this.copy.records[mark.record]?.entity : undefined;
  }

  private inWords(mark: Mark, ending: string): string {
    if (mark.of === 'element') return `The name or id of ${this.nameOf(mark.number)} ${ending}.`;
    if (mark.of === 'person') return `The name of ${this.copy.people[mark.person]?.name ?? ''} ${ending}.`;
    const record = this.copy.records[mark.record];
    const of = `record ${mark.record + 1} (${ownId(this.copy, record?.entity ?? 'unknown')})`;
    if (mark.of === 'record') return `The existence of ${of} ${ending}.`;
    return `${plainName(this.fields.at(mark.field)?.name ?? '')} of ${of} ${ending}.`;
  }

  private nameOf(number: number): string {
    const element = compile(this.copy.definition).tree.elements[number];
    return plainName(element?.name ?? String(number));
  }
}

/** So much of what was sent is told. */
const MOST_TOLD = 200;
const shortened = (text: string): string => (text.length > MOST_TOLD ? `${text.slice(0, MOST_TOLD)}…` : text);

/** A name without its mark. */
const plainName = (name: string): string => name.replace(/ ?Ze\d+eZ/g, '');

function statusFits(one: Reading, { status, location }: Answer): boolean {
  const { is, to } = one.predicted;
  // A page that was begun already is led on by what it says (RSC), not by its status.
  const streamed = one.asking.headers?.['rsc'] !== undefined;
  if (one.reads === 'part') return is === 'open' ? status === 200 : status >= 400;
  switch (is) {
    case 'open':
      return status === 200;
    case 'sign-in':
      return streamed || (status >= 300 && status < 400 && location.includes('/sign-in'));
    case 'sent':
      return streamed || (status >= 300 && status < 400 && location.endsWith(`/${to ?? ''}`));
    case 'refused':
      return status === 403 || status === 200;
    case 'not-there':
      return streamed || status === 404;
  }
}
