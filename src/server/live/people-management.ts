import { and, eq } from 'drizzle-orm';
import { accessOf, viewerOfPerson } from '@/core';
import { type Access, type Assignment, EDIT, HandingOut, type Level, type Person } from '@/core/access';
import { type Id, unitsOf } from '@/core/model';
import { database, type Executor } from '../database/client';
import { applications, people } from '../database/schema';
import { isUuid } from '../database/uuid';
import { notThere, Refused } from '../http/problem';
import type { PersonChange, PersonInput } from '@/contract/people-input';
import { listPeople, type PeopleQuery } from '../people/list';
import { personById } from '../people/read';
import { createPerson, givenToNew, liftWaitsOf, sendNewLink, updatePerson } from '../people/write';
import { requireOneself } from './acting-as';
import type { Visit } from './who-visits';

/** A person as those who look after people see them. */
export interface ManagedPersonRow {
  readonly id: Id;
  readonly name: string;
  readonly email: string;
  readonly active: boolean;
  readonly homeUnit: string | null;
  readonly assignments: readonly (Assignment & { readonly name: string; readonly mine: boolean })[];
  /** May they be sent a link to choose a password, and may their email address be changed? */
  readonly link: boolean;
  readonly emailToo: boolean;
}

/** A role that may be handed out, and where: everywhere, or in these units. */
interface RoleOffer {
  readonly id: Id;
  readonly name: string;
  readonly everywhere: boolean;
  readonly units: readonly { readonly id: Id; readonly name: string }[];
}

/** Looking after people from inside a released application, under the rules of the core. */
export class PeopleManagement {
  private readonly self: Id;

  private constructor(
    private readonly visit: Visit,
    private readonly access: Access,
    private readonly handing: HandingOut,
  ) {
    this.self = visit.person?.id ?? '';
    if (this.level() === 0) throw notThere();
  }

  /** As who asks may; refused where they look after nobody. */
  static of(visit: Visit): PeopleManagement {
    requireOneself(visit);
    if (!visit.person) throw notThere();
    return PeopleManagement.with(visit, visit.access, visit.person.id);
  }

  private static with(visit: Visit, access: Access, self: Id): PeopleManagement {
    return new PeopleManagement(visit, access, new HandingOut(access.held, self));
  }

  /**
   * As who asks may, looked up again with all that it rests on held until the transaction ends: they themselves,
   * the person whom they change, and the release in force.
   */
  private async locked(
    tx: Executor,
    id?: Id,
  ): Promise<{ after: PeopleManagement; person: Person | undefined }> {
    const { applicationId, release, circumstances } = this.visit;
    if (id !== undefined && !isUuid(id)) throw notThere();
    const [application] = await tx
      .select({ release: applications.release })
      .from(applications)
      .where(eq(applications.id, applicationId))
      .for('share');
    if (application?.release !== release) throw meanwhile();
    // In one order, whoever locks whom.
    for (const one of [this.self, ...(id === undefined ? [] : [id])].sort())
      await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.applicationId, applicationId), eq(people.id, one)))
        .for(one === this.self ? 'share' : 'no key update');
    const self = await personById(applicationId, this.self, tx);
    if (!self?.active) throw notThere();
    const access = accessOf(this.access.compiled, viewerOfPerson(self), circumstances);
    const after = PeopleManagement.with(this.visit, access, this.self);
    after.requireWork();
    const person = id === undefined ? undefined : await personById(applicationId, id, tx);
    if (id !== undefined && (!person || !after.handing.mayLookAfter(person))) throw notThere();
    return { after, person };
  }

  private level(): Level {
    const parts = this.access.compiled.tree.elements.filter((one) => one.kind === 'people');
    return Math.max(0, ...parts.map((one) => this.access.level(one, undefined))) as Level;
  }

  private requireWork(): void {
    if (this.level() < EDIT)
      throw new Refused(403, 'reading-only', 'You can see people here but cannot change them.');
  }

  /** The roles and units that may be handed out, in the definition's words. */
  offers(): { roles: RoleOffer[]; homeUnit: boolean } {
    const { definition } = this.access.compiled;
    return {
      roles: definition.roles
        .filter(({ id }) => this.handing.roles.has(id))
        .map(({ id, name }) => ({
          id,
          name,
          everywhere: this.handing.mayHandOut({ role: id }),
          units: unitsOf(definition)
            .filter((unit) => this.handing.mayHandOut({ role: id, unit: unit.id }))
            .map((unit) => ({ id: unit.id, name: unit.name })),
        })),
      homeUnit: this.handing.notToBeSet(['home_unit']).length === 0,
    };
  }

  async list(query: PeopleQuery): Promise<{ people: ManagedPersonRow[]; total: number }> {
    const units = this.handing.units();
    const found = await listPeople(this.visit.applicationId, {
      ...query,
      units: units && [...units],
    });
    return { people: found.people.map((one) => this.shown(one)), total: found.total };
  }

  /** Makes an account. A link goes to its address; nobody is told a password. */
  async create(input: PersonInput): Promise<{ id: Id }> {
    const id = await database().transaction(async (tx) => {
      const { after } = await this.locked(tx);
      return after.createIn(tx, input);
    });
    return { id };
  }

  private async createIn(tx: Executor, input: PersonInput): Promise<Id> {
    const { definition } = this.access.compiled;
    const given = input.assignments ?? [];
    this.requireMine(given);
    // What every new person gets is the builder's to give.
    const always = givenToNew(definition).filter((one) => !given.some(({ role }) => role === one.role));
    const compared = this.handing.notToBeSet(['name']).length > 0;
    this.requireUncompared({ ...input, name: undefined });
    if (!this.handing.mayLookAfter({ id: '', attributes: { home_unit: input.homeUnit ?? null } }))
      throw new Refused(403, 'not-yours', 'You can only add people to your own units.');
    return createPerson(
      tx,
      this.visit.applicationId,
      definition,
      { personId: this.self },
      // A name that access depends on is not theirs to give: the address stands for it until a builder does.
      {
        ...input,
        ...(compared && input.email !== undefined && { name: input.email }),
        assignments: [...always, ...given],
      },
    );
  }

  async update(id: Id, input: PersonChange): Promise<void> {
    await database().transaction(async (tx) => {
      const { after, person } = await this.locked(tx, id);
      if (person) await after.updateIn(tx, person, input);
    });
  }

  private async updateIn(tx: Executor, person: Person, input: PersonChange): Promise<void> {
    if (input.active !== undefined && !this.handing.holdsNoMore(person)) throw aboveYou();
    if (input.email !== undefined && !this.handing.holdsNoMore(person)) throw aboveYou();
    if (input.email !== undefined && !this.handing.mayReaddress(person)) throw isCompared();
    this.requireUncompared(input);
    this.requireMine([...(input.give ?? []), ...(input.take ?? [])]);
    await updatePerson(
      tx,
      this.visit.applicationId,
      this.access.compiled.definition,
      { personId: this.self },
      person.id,
      input,
    );
  }

  /** Sends the person a link to choose a password anew. */
  async sendLink(id: Id): Promise<void> {
    await this.requireFree(id);
    await sendNewLink(this.visit.applicationId, { personId: this.self }, id);
  }

  /** The person need not wait any more to sign in, after wrong tries. */
  async liftWaits(id: Id): Promise<void> {
    await this.requireFree(id);
    await liftWaitsOf(this.visit.applicationId, { personId: this.self }, id);
  }

  private async requireFree(id: Id): Promise<void> {
    this.requireWork();
    const person = await personById(this.visit.applicationId, id);
    if (!person || !this.handing.mayLookAfter(person)) throw notThere();
    if (!this.handing.holdsNoMore(person)) throw aboveYou();
  }

  private requireMine(given: readonly Assignment[]): void {
    const not = given.find((one) => !this.handing.mayHandOut(one));
    if (not)
      throw new Refused(
        403,
        'not-yours-to-give',
        'Nothing was changed. You are not allowed to assign or remove that role in that unit.',
      );
  }

  /** What access depends on is not set from inside, unless the builder allows it. */
  private requireUncompared(
    input: Pick<PersonInput, 'homeUnit' | 'attributes'> & { name?: string | undefined },
  ): void {
    const asked = [
      ...(input.name === undefined ? [] : ['name']),
      ...(input.homeUnit === undefined ? [] : ['home_unit']),
      ...Object.keys(input.attributes ?? {}),
    ];
    if (this.handing.notToBeSet(asked).length > 0) throw isCompared();
  }

  private nameOf({ role, unit }: Assignment): string {
    const { definition } = this.access.compiled;
    const name = definition.roles.find((one) => one.id === role)?.name ?? 'A deleted role';
    const place = unit === undefined ? undefined : unitsOf(definition).find((one) => one.id === unit);
    return unit === undefined ? name : `${name} in ${place?.name ?? 'a deleted unit'}`;
  }

  private shown(person: Person & { readonly active: boolean }): ManagedPersonRow {
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
      link: free,
      emailToo: mine && this.handing.mayReaddress(person),
    };
  }
}

const aboveYou = (): Refused =>
  new Refused(
    403,
    'above-you',
    'Nothing was changed. This person has roles that you neither have nor can assign.',
  );

const isCompared = (): Refused =>
  new Refused(
    403,
    'compared',
    'Nothing was changed. This attribute determines what people can access, so only a builder can change it.',
  );

const meanwhile = (): Refused =>
  new Refused(
    409,
    'changed-meanwhile',
    'Nothing was changed, because a new release has gone live. Reload the page and try again.',
  );
