import { NONE } from '../access/deciding/level';
import type { Entity, EntityField } from '../model/definition';
import type { AppElement } from '../model/tree';
import type { Context } from './context';
import type { Check } from './finding';
import { closedTo } from './mends';
import { called, sentence } from './words';

/** What a field with people's data is most often called. */
const PERSONAL =
  /\b(e-?mail|phone|telephone|mobile|postcode|zip|street|birth|birthday|born|surname|passport|iban|salary|medical|diagnosis|(first|last|full|family|given|maiden) name|(home|postal|street|private|contact|billing|delivery) address|address|contact|national insurance|social security)\b/i;
/** Data about people: there, a name is personal. */
const ABOUT_PEOPLE =
  /\b(person|people|customer|client|member|patient|employee|staff|visitor|guest|pupil|student|teacher|volunteer|tenant|applicant|borrower|lender|donor|subscriber|contact|resident|driver|passenger|user)s?\b/i;

/**
 * Names, addresses and the like are open to people who are signed out: to everyone in the world.
 *
 * Has it: a public list of members with their email address.
 * Has it not: the same list with the members' numbers only.
 */
export const personalDataPublic: Check = {
  kind: 'personal-data-public',
  rank: 'lets-in',
  title: 'Personal data open to everyone',
  *find(context) {
    const { tree, signedOut } = context;
    for (const entity of context.definition.entities) {
      const open = entity.fields
        .filter((field) => isPersonal(entity, field))
        .flatMap(({ id }) => tree.get(id) ?? [])
        .filter((door) => context.most(signedOut, door) > NONE);
      for (const door of open)
        yield {
          reason: `People who are signed out can see ${called(door)}, which looks like personal data.`,
          places: [door.id, ...context.compiled.handles.handlesOf(door)],
          whom: [signedOut],
          mends: mendsFor(context, door),
        };
    }
    for (const part of tree.elements)
      if (part.kind === 'people' && context.most(signedOut, part) > NONE)
        yield {
          reason: sentence(`${called(part)} is open to people who are signed out.`),
          places: [part.id],
          whom: [signedOut],
          mends: [],
        };
  },
};

function isPersonal(entity: Entity, { name, type, check }: EntityField): boolean {
  if (check?.form === 'email' || check?.form === 'telephone' || PERSONAL.test(name)) return true;
  return type.kind === 'text' && /\bname\b/i.test(name) && ABOUT_PEOPLE.test(`${entity.name} ${name}`);
}

function mendsFor(context: Context, door: AppElement) {
  const { signedOut } = context;
  const edit = closedTo(context, door, [signedOut]);
  const says = `Hide ${called(door)} from people who are signed out.`;
  return edit ? [{ says, does: 'closes', edit } as const] : [];
}
