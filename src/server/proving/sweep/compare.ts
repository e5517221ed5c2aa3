import type { Surprise } from '@/core/sweep';
import type { Copy } from './copy';
import type { Answer } from './asker';
import type { Case } from './cases';
import { FieldNumbers, lacking, type Mark, MarkFinder, type Predictor } from '@/core/sweep';
import { compile } from '@/core';

type Said = Omit<Surprise, 'viewer'>;

/** How many records a list says that there are, in JSON and in JSON within JSON. */
const TOTALS = /\\*"total\\*":(\d+)/g;

/** Holds an answer against what should have come. */
export class Comparing {
  private readonly finder: MarkFinder;
  private readonly fields: FieldNumbers;

  constructor(private readonly copy: Copy) {
    this.fields = new FieldNumbers(copy.definition);
    this.finder = new MarkFinder(copy.definition, copy.records, this.fields);
  }

  get marks(): MarkFinder {
    return this.finder;
  }

  /** What is otherwise than it should be. */
  surprises(one: Case, answer: Answer, predictor: Predictor): Said[] {
    const request = `${one.asking.method ?? 'GET'} ${one.asking.path.replace(`/live/${this.copy.slug}`, '')}`;
    const told: Said[] = [];
    const tell = (what: Said['what'], said: string, element = one.about): void =>
      void told.push({ request, what, said, ...(element !== undefined && { element }) });
    const found = this.finder.find(`${answer.headers}\n${answer.body}`);
    // What was asked for is no news to who asked.
    const asked = this.finder.find(
      decodeURIComponent(one.asking.path) + JSON.stringify(one.asking.body ?? ''),
    );
    for (const key of asked.keys())
      if (!('predicted' in one) || !one.predicted.marks.has(key)) found.delete(key);
    if ('refused' in one) {
      if (answer.status < 400) tell('did', `It was done (${answer.status}), and should have been refused.`);
      for (const mark of found.values())
        if (!this.mayKnow(predictor, mark))
          tell('shows', this.inWords(mark, 'is told'), this.elementOf(mark));
      return told;
    }
    const { predicted } = one;
    const fits = statusFits(one, answer);
    if (!fits)
      tell(
        'answers',
        `It answers ${answer.status}${answer.location && ` to ${answer.location}`}, and should be “${predicted.is}”.`,
      );
    for (const [key, mark] of found) {
      // Asked of the doors alone: what a page shows is worked out by code that the server has too.
      const may = this.mayKnow(predictor, mark);
      if (may && predicted.marks.has(key)) continue;
      if (!may) tell('shows', this.inWords(mark, 'is sent, and closed to them'), this.elementOf(mark));
      else if (mark.of === 'value' && fits)
        tell('shows', this.inWords(mark, 'is sent, where nothing shows it'), this.elementOf(mark));
    }
    if (!fits || predicted.is !== 'open') return told;
    for (const mark of lacking(predicted.marks, found))
      tell('lacks', this.inWords(mark, 'is not there'), this.elementOf(mark));
    const totals = new Set([...answer.body.matchAll(TOTALS)].map(([, total]) => Number(total)));
    const should = new Set(predicted.totals);
    if (
      should.size > 0 &&
      ([...totals].some((n) => !should.has(n)) || [...should].some((n) => !totals.has(n)))
    )
      tell(
        'counts',
        `It counts ${[...totals].join(', ') || 'nothing'}, and should count ${[...should].join(', ')}.`,
      );
    return told;
  }

  private mayKnow(predictor: Predictor, mark: Mark): boolean {
    return predictor.mayKnow(mark, (number) => this.fields.at(number)?.id);
  }

  private elementOf(mark: Mark): string | undefined {
    if (mark.of === 'value') return this.fields.at(mark.field)?.id;
    if (mark.of === 'element') return compile(this.copy.definition).tree.elements[mark.number]?.id;
    return this.copy.records[mark.record]?.entity;
  }

  private inWords(mark: Mark, ending: string): string {
    if (mark.of === 'element') return `The name of ${this.nameOf(mark.number)} ${ending}.`;
    const record = this.copy.records[mark.record];
    const of = `record ${mark.record + 1} (${record?.entity ?? 'unknown'})`;
    if (mark.of === 'record') return `That there is ${of} ${ending}.`;
    return `${plainName(this.fields.at(mark.field)?.name ?? '')} of ${of} ${ending}.`;
  }

  private nameOf(number: number): string {
    const element = compile(this.copy.definition).tree.elements[number];
    return plainName(element?.name ?? String(number));
  }
}

/** A name without its mark. */
const plainName = (name: string): string => name.replace(/ ?Ze\d+eZ/g, '');

function statusFits(one: Extract<Case, { predicted: unknown }>, { status, location }: Answer): boolean {
  const { is, to } = one.predicted;
  // A page that was begun already is led on by what it says (RSC), not by its status.
  const streamed = one.asking.headers?.['rsc'] !== undefined;
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
      return streamed || status === 404 || (one.reads === 'api' && status >= 400 && status < 500);
  }
}
