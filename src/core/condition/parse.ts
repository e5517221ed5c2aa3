import type { Id } from '../model/id';
import { privilegesOf } from '../model/privileges';
import type { Problem } from '../model/problem';
import { whatIsWrong } from './check';
import { beginnings, constantOffers, operandOffers, operatorOffers, type Offer } from './offers';
import {
  CLOCK_READINGS,
  HELD_WHERE,
  type ClockReading,
  type Condition,
  type HeldWhere,
  type Operand,
} from './condition';
import { LITERALS } from './literals';
import { findByName, findByWord, nearest, pathWord, quotedName } from './names';
import { COMPARISONS, operatorKind, type Operator } from './operators';
import { REGISTERED, registered } from './registered';
import { tokensOf, type Span, type Token } from './tokens';
import {
  attributesOf,
  canBeBetween,
  canBeOneOf,
  comparable,
  comparedKind,
  entityFor,
  exampleOf,
  listedOf,
  operatorsFor,
  pointsNotText,
  readConstant,
  typeInWords,
  typeOf,
  type Scope,
  type Type,
} from './type';
import type { Value, ValueType } from '../model/value-type';
import { withArticle } from '../model/article';

/** What is wrong in a text, and where in it. */
export interface TextProblem extends Problem {
  readonly span: Span;
  /** What to write in the place of the span, where that mends it. */
  readonly fix?: string;
  /** Of which entity one record is to be picked, and written there as `#id`. */
  readonly pick?: Id;
}

export type Parsed =
  { readonly ok: true; readonly value: Condition } | { readonly ok: false; readonly problem: TextProblem };

/** What could stand at a place of the text, and the stretch that it would take the place of. */
export interface Offers {
  readonly span: Span;
  readonly offers: readonly Offer[];
}

/**
 * Reads a condition's text form (its grammar is in docs/conditions.md). The first fault is told, with its
 * place in the text and a mend.
 *
 * @example
 * const read = parse({ definition: LARKFIELD }, 'user.Staff = yes');
 * read.ok && read.value // → { compare: '=', left: { user: 'u_staff' }, right: { value: true } }
 */
export function parse(scope: Scope, text: string): Parsed {
  const parser = new Parser(scope, tokensOf(text));
  try {
    return { ok: true, value: parser.whole() };
  } catch (error) {
    if (error instanceof Fault) return { ok: false, problem: error.problem };
    throw error;
  }
}

/** What could be written at the cursor, in place of the word that it is in. */
export function suggest(scope: Scope, text: string, cursor: number): Offers {
  const before = text.slice(0, cursor);
  const inQuotes = before.split('"').length % 2 === 0;
  const begun = (inQuotes ? /"[^"]*$/ : /#?[A-Za-z0-9_-]*$/).exec(before)?.[0] ?? '';
  const parser = new Parser(scope, tokensOf(before.slice(0, before.length - begun.length)));
  try {
    parser.whole();
  } catch (error) {
    if (!(error instanceof Fault)) throw error;
  }
  const word = begun.replace(/^"/, '').toLowerCase();
  const seen = new Set<string>();
  const offers = parser.offers.filter(({ text: offer, about }) => {
    if (seen.has(offer)) return false;
    seen.add(offer);
    return (
      offer.replace(/^"/, '').toLowerCase().startsWith(word) ||
      (word.length > 1 && `${offer} ${about}`.toLowerCase().includes(word))
    );
  });
  return { span: { from: cursor - begun.length, to: cursor }, offers };
}

class Fault extends Error {
  constructor(readonly problem: TextProblem) {
    super(problem.message);
  }
}

/** An operand as it was read: a constant's type is only known from what stands beside it. */
interface Read {
  readonly span: Span;
  readonly operand?: Operand;
  readonly constant?: Token;
  readonly minus?: boolean;
}

class Parser {
  readonly offers: Offer[] = [];
  private at = 0;

  constructor(
    private readonly scope: Scope,
    private readonly tokens: readonly Token[],
  ) {}

  whole(): Condition {
    const condition = this.either();
    this.expectEnd();
    return condition;
  }

  private either(): Condition {
    const parts = [this.both()];
    while (this.takeWord('or')) parts.push(this.both());
    return parts.length === 1 ? (parts[0] as Condition) : { any: parts };
  }

  private both(): Condition {
    const parts = [this.single()];
    while (this.takeWord('and')) parts.push(this.single());
    return parts.length === 1 ? (parts[0] as Condition) : { all: parts };
  }

  private single(): Condition {
    this.offer(() => beginnings(this.scope));
    if (this.takeWord('not')) return { not: this.single() };
    if (this.takeSign('(')) {
      const inner = this.either();
      this.needSign(')');
      return inner;
    }
    for (const word of ['all', 'any'] as const)
      if (this.isWord(word) && this.next(1).text === '(') return this.listed(word);
    if (this.takeWord('meets')) {
      const { id, span } = this.reference('condition', this.scope.definition.conditions);
      return this.checked({ meets: id }, span);
    }
    if (this.isWord('user') && this.next(1).text !== '.') return this.viewerQuestion();
    const token = this.peek();
    if (token.kind === 'word' && this.next(1).text === '(') return this.call();
    return this.comparison();
  }

  private listed(word: 'all' | 'any'): Condition {
    this.at += 2;
    const parts: Condition[] = [];
    if (!this.takeSign(')')) {
      do parts.push(this.either());
      while (this.takeSign(','));
      this.needSign(')');
    }
    return word === 'all' ? { all: parts } : { any: parts };
  }

  /** `user has role "Registrar"`, `user has privilege …`, `user in group …`, `user in unit …`. */
  private viewerQuestion(): Condition {
    const user = this.take();
    const { definition } = this.scope;
    this.offer(() => [
      { text: 'has role', about: 'a role or a role that includes it' },
      { text: 'has exactly role', about: 'a role that is assigned directly' },
      { text: 'has privilege', about: 'a privilege from one of the viewer’s roles' },
      { text: 'in group', about: 'a group of the application' },
      { text: 'in unit', about: 'the viewer’s home unit is this unit or below it' },
    ]);
    if (this.takeWord('has')) {
      const exactly = this.takeWord('exactly');
      this.offer(() => [{ text: 'role', about: '' }, ...(exactly ? [] : [{ text: 'privilege', about: '' }])]);
      if (this.takeWord('role')) {
        const { id } = this.reference('role', definition.roles);
        return { hasRole: id, ...(exactly && { exactly }), ...this.heldWhere() };
      }
      if (!exactly && this.takeWord('privilege'))
        return {
          hasPrivilege: this.reference('privilege', privilegesOf(definition)).id,
          ...this.heldWhere(),
        };
      throw this.fault(
        this.peek(),
        '“user has” must be followed by role or privilege.',
        'Write: user has role "…".',
      );
    }
    if (this.takeWord('in')) {
      if (this.takeWord('group')) return { inGroup: this.reference('group', definition.groups).id };
      if (this.isWord('unit')) return this.inUnit({ span: user, operand: { user: 'home_unit' } });
    }
    throw this.fault(
      this.peek(),
      '“user” must be followed by a dot and an attribute, by “has” or by “in group”.',
      'Write user.email, or user has role "…".',
    );
  }

  private heldWhere(): { held?: HeldWhere } {
    this.offer(() => [
      { text: 'everywhere', about: 'held in all units' },
      { text: 'anywhere', about: 'held in any unit' },
    ]);
    const held = HELD_WHERE.find((one) => this.takeWord(one));
    return held ? { held } : {};
  }

  private call(): Condition {
    const name = this.take();
    this.needSign('(');
    const found = registered(name.text);
    if (!found)
      throw this.fault(
        name,
        `There is no condition ${name.text}.`,
        didYouMean(
          nearest(
            REGISTERED.map((one) => one.name),
            name.text,
          ),
        ) ?? 'Remove it.',
      );
    const operands: Operand[] = [];
    found.takes.forEach(({ type }, n) => {
      if (n > 0) this.needSign(',');
      operands.push(this.resolve(this.operand(type), type));
    });
    const end = this.needSign(')');
    return this.checked({ call: name.text, with: operands }, { from: name.from, to: end.to });
  }

  private comparison(): Condition {
    const left = this.operand();
    const type = left.operand && typeOf(this.scope, left.operand);
    this.offer(() => (type ? operatorOffers(type) : []));
    if (this.takeWord('is')) return this.afterIs(left, type);
    const not = this.isWord('not') && this.nextWord() === 'in' ? this.takeWord('not') : false;
    if (this.isWord('in') && this.nextWord() === 'unit' && this.takeWord('in')) return this.inUnit(left);
    if (this.takeWord('between')) return this.between(left);
    if (this.isWord('in') && this.nextWord() === 'any')
      throw this.fault(
        this.peek(),
        '“in any case” must come at the end of a comparison.',
        'Write it after the value: … contains "…" in any case.',
      );
    if (this.takeWord('in')) {
      const within = this.oneOf(left);
      return not ? { not: within } : within;
    }
    const operator = this.operator();
    if (!operator) {
      if (type?.kind === 'boolean' && left.operand)
        return { compare: '=', left: left.operand, right: { value: true } };
      throw this.fault(
        this.peek(),
        left.operand ? 'A comparison is missing here.' : 'A value to compare is missing here.',
        type
          ? `Continue with ${operatorsFor(type).join(', ')} or is empty.`
          : 'Start with a field, such as record.…, and compare it with a value.',
      );
    }
    return this.compare(operator, left, this.operand(type));
  }

  private afterIs(left: Read, type: Type | undefined): Condition {
    const not = this.takeWord('not');
    this.offer(() => [{ text: 'empty', about: 'there is no value' }]);
    if (this.takeWord('empty')) {
      const of = this.needOperand(left);
      const condition = this.checked({ empty: of }, left.span);
      return not ? { not: condition } : condition;
    }
    if (this.takeWord('one')) {
      this.needWord('of');
      const within = this.oneOf(left);
      return not ? { not: within } : within;
    }
    if (this.takeWord('between')) return not ? { not: this.between(left) } : this.between(left);
    return this.compare(not ? '!=' : '=', left, this.operand(type));
  }

  private between(left: Read): Condition {
    const between = this.needOperand(left);
    const type = typeOf(this.scope, between) as Type;
    if (!canBeBetween(type))
      throw this.fault(
        left.span,
        '“between” cannot be used with this type.',
        `Use ${operatorsFor(type).join(' or ')}.`,
      );
    const low = this.operand(type);
    const from = this.resolve(low, type);
    this.offer(() => [{ text: 'and', about: 'and the highest value' }]);
    this.needWord('and');
    const high = this.operand(type);
    const to = this.resolve(high, type);
    return this.checked({ between, from, to }, { from: left.span.from, to: high.span.to });
  }

  /** After a comparison of texts: are capital and small letters the same? */
  private anyCase(type: Type): boolean {
    if (type.kind === 'text')
      this.offer(() => [{ text: 'in any case', about: 'ignoring upper and lower case' }]);
    if (!this.isWord('in') || this.nextWord() !== 'any') return false;
    this.at += 2;
    this.needWord('case');
    return true;
  }

  private compare(operator: Operator, left: Read, right: Read): Condition {
    const span = { from: left.span.from, to: right.span.to };
    const [a, b] = [left, right].map((one) => one.operand && typeOf(this.scope, one.operand));
    if (a && b && !comparable(a, b)) {
      const { definition } = this.scope;
      throw this.fault(
        right.span,
        `${typeInWords(definition, a)} cannot be compared with ${typeInWords(definition, b)}.`,
        `Compare it with ${typeInWords(definition, a)}.`,
      );
    }
    const type = a ?? b;
    if (!type)
      throw this.fault(
        span,
        'A comparison of two constants always gives the same result.',
        'Use a field, such as record.…, on one side.',
      );
    const compared = {
      compare: operator,
      left: this.resolve(left, type),
      right: this.resolve(right, type),
    };
    return this.checked(this.anyCase(type) ? { ...compared, anyCase: true } : compared, span);
  }

  private oneOf(left: Read): Condition {
    const of = this.needOperand(left);
    const type = typeOf(this.scope, of) as Type;
    if (!canBeOneOf(type))
      throw this.fault(
        left.span,
        '“is one of” cannot be used with this type.',
        `Use ${operatorsFor(type).join(' or ')}.`,
      );
    this.needSign('(');
    const values: Value[] = [];
    do {
      const one = this.operand(type);
      const value = this.resolve(one, type);
      if (!('value' in value))
        throw this.fault(
          one.span,
          'A list can contain only constants.',
          `Write ${exampleOf(this.scope.definition, type)}.`,
        );
      values.push(value.value);
    } while (this.takeSign(','));
    const end = this.needSign(')');
    return this.checked({ oneOf: of, values }, { from: left.span.from, to: end.to });
  }

  private inUnit(left: Read): Condition {
    this.needWord('unit');
    const inUnit = this.needOperand(left);
    const unitType: Type = { kind: 'unit' };
    const right = this.operand(unitType);
    return this.checked(
      { inUnit, unit: this.resolve(right, unitType) },
      { from: left.span.from, to: right.span.to },
    );
  }

  private needOperand(read: Read): Operand {
    if (read.operand) return read.operand;
    throw this.fault(read.span, 'A constant cannot be used here.', 'Start with a field, such as record.….');
  }

  private operand(beside?: Type): Read {
    this.offer(() => [
      ...(beside ? constantOffers(this.scope, beside) : []),
      ...operandOffers(this.scope, beside),
    ]);
    const token = this.peek();
    if (token.kind === 'word') {
      // An option may be called like one of these: without a dot, capitals tell it from them.
      const word = this.next(1).text === '.' ? token.text.toLowerCase() : token.text;
      if (word === 'record') return this.recordPath();
      if (word === 'user') return this.path(attributesOf(this.scope.definition), 'attribute', 'user');
      if (word === 'session')
        return this.path(this.scope.definition.sessionValues, 'session value', 'session');
      if ((CLOCK_READINGS as readonly string[]).includes(word)) return this.clock();
    }
    const minus = this.takeSign('-');
    const constant = this.take();
    if (constant.kind === 'end')
      throw this.fault(
        constant,
        'Something is missing here.',
        'Add a field, such as record.…, or a constant.',
      );
    if (constant.kind === 'wrong' || constant.kind === 'sign') throw this.unexpected(constant);
    return { span: { from: token.from, to: constant.to }, constant, ...(minus && { minus }) };
  }

  private path(
    among: readonly { id: Id; name: string; type: ValueType }[],
    what: string,
    root: 'user' | 'session',
  ): Read {
    const from = this.take().from;
    const { one, to } = this.segment(among, what, root);
    return { span: { from, to }, operand: root === 'user' ? { user: one.id } : { session: one.id } };
  }

  private recordPath(): Read {
    const root = this.take();
    const { scope } = this;
    if (!scope.entity)
      throw this.fault(
        root,
        'No record is available here.',
        'Use the viewer (user.…), the session (session.…) or the time, or move the line to a field, list or record screen.',
      );
    const first = this.segment(scope.entity.fields, `field of ${scope.entity.name}`, 'record');
    if (first.one.type.kind !== 'record' || this.peek().text !== '.')
      return { span: { from: root.from, to: first.to }, operand: { record: first.one.id } };
    const through = first.one.id;
    const entity = entityFor(scope, through);
    const second = this.segment(
      entity?.fields ?? [],
      `field of ${entity?.name ?? ''}`,
      `record.${pathWord(scope.entity.fields, through)}`,
    );
    return { span: { from: root.from, to: second.to }, operand: { record: second.one.id, through } };
  }

  /** A dot and the word of one of several. */
  private segment<T extends { readonly id: Id; readonly name: string; readonly type: ValueType }>(
    among: readonly T[],
    what: string,
    before: string,
  ): { one: T; to: number } {
    this.offer(() => [{ text: '.', about: '' }]);
    this.needSign('.');
    this.offer(() =>
      among.map((one) => ({
        text: pathWord(among, one.id),
        about: `${one.name}: ${typeInWords(this.scope.definition, one.type)}`,
      })),
    );
    const token = this.take();
    const one = token.kind === 'word' || token.kind === 'id' ? findByWord(among, token.text) : undefined;
    if (one) return { one, to: token.to };
    const words = among.map((other) => pathWord(among, other.id));
    const near = nearest(words, token.text);
    throw this.fault(
      token,
      token.kind === 'end'
        ? `A ${what} is missing after “${before}.”`
        : `There is no ${what} “${token.text}”.`,
      didYouMean(near && `${before}.${near}`) ?? `Choose one of ${words.slice(0, 8).join(', ')}.`,
      near,
    );
  }

  private clock(): Read {
    const token = this.take();
    const clock = token.text as ClockReading;
    const sign = clock === 'today' && ['+', '-'].includes(this.peek().text) ? this.take() : undefined;
    if (!sign) return { span: token, operand: { clock } };
    const days = this.take();
    if (days.kind !== 'number' || !/^\d{1,5}$/.test(days.text))
      throw this.fault(days, 'A whole number of days is missing here.', 'For example: today + 7 days.');
    this.offer(() => [{ text: 'days', about: '' }]);
    const last = this.isWord('day') || this.isWord('days') ? this.take() : days;
    const plus = Number(days.text) * (sign.text === '-' ? -1 : 1);
    return { span: { from: token.from, to: last.to }, operand: plus === 0 ? { clock } : { clock, plus } };
  }

  /** The operand, with a constant read as one of the type. */
  private resolve(read: Read, type: Type): Operand {
    if (read.operand) return read.operand;
    const { definition } = this.scope;
    const token = read.constant as Token;
    const { literal } = comparedKind(type);
    const value = LITERALS[literal].read(token, read.minus ?? false, listedOf(definition, type));
    const plain = value === undefined ? undefined : readConstant(definition, type, value);
    if (plain !== undefined) return { value: plain };
    if (type.kind === 'record') {
      const [message, mend] = pointsNotText(definition, type, token.text);
      const { problem } = this.fault(read.span, message, mend);
      throw new Fault({ ...problem, pick: type.entity });
    }
    const names = constantOffers(this.scope, type).map((one) => one.text);
    const near = nearest(names, token.text);
    throw this.fault(
      read.span,
      `“${token.text}” is not ${typeInWords(definition, type)}.`,
      didYouMean(near) ?? `Write it like ${exampleOf(definition, type)}.`,
      near,
    );
  }

  /** A name in quotes, or an id: also of one that is gone, which is in doubt rather than refused. */
  private reference(what: string, among: readonly { id: Id; name: string }[]): { id: Id; span: Span } {
    this.offer(() => among.map((one) => ({ text: quotedName(among, one.id), about: what })));
    const token = this.take();
    const id =
      token.kind === 'id'
        ? token.text.slice(1)
        : token.kind === 'string' || token.kind === 'word'
          ? findByName(among, token.text)?.id
          : undefined;
    if (id !== undefined) return { id, span: token };
    const names = among.map((one) => quotedName(among, one.id));
    const near = nearest(names, token.text);
    throw this.fault(
      token,
      token.kind === 'end'
        ? `The name of ${withArticle(what)} is missing here.`
        : `There is no ${what} “${token.text}”.`,
      didYouMean(near) ??
        (names.length > 0
          ? `Choose one of ${names.slice(0, 6).join(', ')}.`
          : `Create ${withArticle(what)} first.`),
      near,
    );
  }

  private operator(): Operator | undefined {
    const token = this.peek();
    for (const operator of COMPARISONS) {
      const { also = [] } = operatorKind(operator);
      if (token.kind === 'sign' && [operator, ...also].includes(token.text)) {
        this.at++;
        return operator;
      }
      const words = operator.split(' ');
      if (words.every((word, n) => this.isWord(word, n))) {
        this.at += words.length;
        return operator;
      }
    }
    return undefined;
  }

  /** The condition, if its types fit; the same check as a condition from a file goes through. */
  private checked(condition: Condition, span: Span): Condition {
    const problem = whatIsWrong(this.scope, condition);
    if (problem) throw this.fault(span, problem.message, problem.mend);
    return condition;
  }

  private offer(make: () => Offer[]): void {
    if (this.peek().kind === 'end') this.offers.push(...make());
  }

  private expectEnd(): void {
    this.offer(() => [
      { text: 'and', about: 'both must be true' },
      { text: 'or', about: 'at least one must be true' },
    ]);
    if (this.peek().kind !== 'end') throw this.unexpected(this.peek());
  }

  private unexpected(token: Token): Fault {
    if (token.kind === 'wrong') return this.fault(token, token.message, token.mend);
    return this.fault(
      token,
      token.kind === 'end' ? 'Something is missing here.' : `“${token.text}” is not allowed here.`,
      'Combine conditions with “and” or “or”, and group them with brackets.',
    );
  }

  /** `fix` is what to write in the place of the span. */
  private fault(span: Span, message: string, mend: string, fix?: string): Fault {
    const { from, to } = span;
    const place = `at character ${from + 1}`;
    const problem = { code: 'condition', place, message, mend, span: { from, to } };
    return new Fault(fix === undefined ? problem : { ...problem, fix });
  }

  private peek(): Token {
    return this.next(0);
  }

  private next(ahead: number): Token {
    return this.tokens[Math.min(this.at + ahead, this.tokens.length - 1)] as Token;
  }

  private take(): Token {
    const token = this.peek();
    if (token.kind !== 'end') this.at++;
    return token;
  }

  private isWord(word: string, ahead = 0): boolean {
    const token = this.next(ahead);
    return token.kind === 'word' && token.text.toLowerCase() === word;
  }

  /** The word after this one. */
  private nextWord(): string {
    return this.next(1).text.toLowerCase();
  }

  private takeWord(word: string): boolean {
    if (!this.isWord(word)) return false;
    this.at++;
    return true;
  }

  private needWord(word: string): void {
    if (!this.takeWord(word)) throw this.fault(this.peek(), `“${word}” is missing here.`, `Add ${word}.`);
  }

  private takeSign(sign: string): boolean {
    const token = this.peek();
    if (token.kind !== 'sign' || token.text !== sign) return false;
    this.at++;
    return true;
  }

  private needSign(sign: string): Span {
    const token = this.peek();
    if (token.kind === 'wrong') throw this.unexpected(token);
    if (!this.takeSign(sign))
      throw this.fault(
        token,
        `${sign} is missing here.`,
        `Add ${sign}.`,
        token.kind === 'end' ? sign : undefined,
      );
    return token;
  }
}

const didYouMean = (near: string | undefined): string | undefined =>
  near === undefined ? undefined : `Did you mean ${near}?`;
