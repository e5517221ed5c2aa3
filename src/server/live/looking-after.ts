import type { Access } from '@/core/access/access';
import { HandingOut } from '@/core/access/handing-out';
import { EDIT, type Level } from '@/core/access/level';
import type { Assignment, Person } from '@/core/access/viewer';
import type { Id } from '@/core/model/id';
import { unitsOf } from '@/core/model/units';
import { database } from '../database/client';
import { notThere, Refused } from '../http/problem';
import type { PersonInput } from '../people/input';
import { listPeople, type PeopleQuery } from '../people/list';
import { personById } from '../people/read';
import { createPerson, givenToNew, newPassword, resetPassword, updatePerson } from '../people/write';
import { requireOneself } from './standing';
import type { Visit } from './visit';

/** A person as those who look after people see them. */
export interface CaredFor {
  readonly id: Id;
  readonly name: string;
  readonly email: string;
  readonly active: boolean;
  readonly homeUnit: string | null;
  readonly assignments: readonly (Assignment & { readonly name: string; readonly mine: boolean })[];
  /** May their password be reset, and their email address be changed? */
  readonly password: boolean;
  readonly emailToo: boolean;
}

/** Looking after people from inside a released application, under the rules of the core. */
export class LookingAfter {
  private readonly access: Access;
  private readonly handing: HandingOut;
  private readonly self: Id;

  constructor(private readonly visit: Visit) {
    if (!visit.person) throw notThere();
    requireOneself(visit);
    this.access = visit.access;
    this.self = visit.person.id;
    this.handing = new HandingOut(visit.access.held, visit.person.id);
    if (this.level() === 0) throw notThere();
  }

  private level(): Level {
    const parts = this.access.compiled.tree.elements.filter((one) => one.kind === 'people');
    return Math.max(0, ...parts.map((one) => this.access.level(one, undefined))) as Level;
  }

  private requireWork(): void {
    if (this.level() < EDIT)
      throw new Refused(403, 'reading-only', 'You may look at people here, not change them.');
  }

  /** The roles and units that may be handed out, in the definition's words. */
  offers(): { roles: { id: Id; name: string }[]; homeUnit: boolean } {
    const { roles } = this.access.compiled.definition;
    return {
      roles: roles.filter(({ id }) => this.handing.roles.has(id)).map(({ id, name }) => ({ id, name })),
      homeUnit: !this.handing.compared.has('home_unit'),
    };
  }

  async list(query: PeopleQuery): Promise<{ people: CaredFor[]; total: number }> {
    const units = this.handing.units();
    const found = await listPeople(this.visit.applicationId, {
      ...query,
      units: units && [...units],
    });
    return { people: found.people.map((one) => this.shown(one)), total: found.total };
  }

  async create(input: PersonInput): Promise<{ id: Id; password: string }> {
    this.requireWork();
    const { definition } = this.access.compiled;
    const given = input.assignments ?? [];
    this.requireMine(given);
    // What every new person gets is the builder's to give.
    const always = givenToNew(definition).filter((one) => !given.some(({ role }) => role === one.role));
    const assignments = [...always, ...given];
    this.requireUncompared({ ...input, email: undefined });
    if (!this.handing.mayLookAfter({ id: '', attributes: { home_unit: input.homeUnit ?? null } }))
      throw new Refused(403, 'not-yours', 'You may add people to your own units only.');
    const { password, passwordHash } = await newPassword();
    const id = await database().transaction((tx) =>
      createPerson(
        tx,
        this.visit.applicationId,
        definition,
        { personId: this.self },
        { ...input, assignments },
        passwordHash,
      ),
    );
    return { id, password };
  }

  async update(id: Id, input: PersonInput): Promise<void> {
    this.requireWork();
    const person = await this.person(id);
    if (input.email !== undefined && !this.handing.holdsNoMore(person)) throw aboveYou();
    if (input.active !== undefined && !this.handing.holdsNoMore(person)) throw aboveYou();
    this.requireUncompared(input);
    if (input.assignments) {
      const key = (one: Assignment): string => JSON.stringify([one.role, one.unit, one.from, one.until]);
      const [was, is] = [person.assignments.map(key), input.assignments.map(key)];
      this.requireMine([
        ...person.assignments.filter((one) => !is.includes(key(one))),
        ...input.assignments.filter((one) => !was.includes(key(one))),
      ]);
    }
    await database().transaction((tx) =>
      updatePerson(
        tx,
        this.visit.applicationId,
        this.access.compiled.definition,
        { personId: this.self },
        id,
        input,
      ),
    );
  }

  async password(id: Id): Promise<string> {
    this.requireWork();
    const person = await this.person(id);
    if (!this.handing.holdsNoMore(person)) throw aboveYou();
    return resetPassword(this.visit.applicationId, { personId: this.self }, id);
  }

  private async person(id: Id): Promise<Person> {
    const person = await personById(this.visit.applicationId, id);
    if (!person || !this.handing.mayLookAfter(person)) throw notThere();
    return person;
  }

  private requireMine(given: readonly Assignment[]): void {
    const not = given.find((one) => !this.handing.mayHandOut(one));
    if (not)
      throw new Refused(
        403,
        'not-yours-to-give',
        'Nothing was changed: that role is not yours to give or take there.',
      );
  }

  /** What access depends on is not changed from inside. */
  private requireUncompared(input: Omit<PersonInput, 'email'> & { email?: string | undefined }): void {
    const { compared } = this.handing;
    const asked = [
      ...(input.email === undefined ? [] : ['email']),
      ...(input.name === undefined || !compared.has('name') ? [] : ['name']),
      ...(input.homeUnit === undefined ? [] : ['home_unit']),
      ...Object.keys(input.attributes ?? {}),
    ];
    if (asked.some((one) => compared.has(one)))
      throw new Refused(
        403,
        'compared',
        'Nothing was changed: what somebody sees depends on that. A builder changes it.',
      );
  }

  private nameOf({ role, unit }: Assignment): string {
    const { definition } = this.access.compiled;
    const name = definition.roles.find((one) => one.id === role)?.name ?? 'A role that is gone';
    const place = unit === undefined ? undefined : unitsOf(definition).find((one) => one.id === unit);
    return unit === undefined ? name : `${name} in ${place?.name ?? 'a unit that is gone'}`;
  }

  private shown(person: Person & { readonly active: boolean }): CaredFor {
    const mine = this.handing.mayLookAfter(person);
    const free = mine && this.handing.holdsNoMore(person);
    return {
      id: person.id,
      name: person.name,
      email: String(person.attributes['email'] ?? ''),
      active: person.active,
      homeUnit: (person.attributes['home_unit'] as string | null) ?? null,
      assignments: person.assignments.map((one) => ({
        ...one,
        name: this.nameOf(one),
        mine: mine && this.handing.mayHandOut(one),
      })),
      password: free,
      emailToo: free && !this.handing.compared.has('email'),
    };
  }
}

const aboveYou = (): Refused =>
  new Refused(403, 'above-you', 'Nothing was changed: this person holds more than you do and may hand out.');
