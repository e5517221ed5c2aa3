import type {
  Area,
  Definition,
  Entity,
  EntityField,
  FieldPart,
  List,
  Part,
  Screen,
} from '../../model/definition';
import { addressFrom } from '../../making/names';
import { newId, type Id } from '../../model/id';
import type { ElementNode, Slot } from '../../model/slots';
import { sectionsOf, treeOf } from '../../model/tree';
import type { Edit } from '../edits/edit';
import { addScreen } from '../edits/make';
import { effectsOn } from './effects';
import { countedBy, typeInWords } from './fields';

/** A place between elements where something can be put. */
export interface Seam {
  readonly slot: Slot;
  readonly at: number;
}

/** Something that can come to a seam. */
interface Offer {
  readonly key: string;
  readonly name: string;
  /** What it is, or does. */
  readonly about: string;
  /** The field of the data that it would show: who sees it elsewhere may be told beside it. */
  readonly shows?: Id;
  /** The edit that puts it there, and the id that it has then. */
  readonly make: () => { readonly edit: Edit; readonly id: Id };
}

/** The offers of one seam, under what they have in common. */
export interface OfferGroup {
  readonly name: string;
  readonly offers: readonly Offer[];
}

/** Makes the offers of one definition. */
export class Offers {
  constructor(private readonly definition: Definition) {}

  private offer(
    key: string,
    name: string,
    about: string,
    { slot, at }: Seam,
    node: (id: Id) => object,
    shows?: Id,
  ): Offer {
    return {
      key: `${slot.in} ${slot.list} ${key}`,
      name,
      about,
      ...(shows !== undefined && { shows }),
      make: () => {
        const id = newId();
        const made = { id, ...node(id) } as ElementNode;
        return { id, edit: { do: 'addElement', into: slot, at, node: made, gates: {}, closed: {} } };
      },
    };
  }

  areas(seam: Seam): OfferGroup[] {
    const area = this.offer('area', 'Area', 'a group of screens', seam, () => ({
      name: 'New area',
      screens: [],
    }));
    return [{ name: 'In the application', offers: [area] }];
  }

  /** Menus of their own for areas that have none: to begin with, of their screens that need no record. */
  frames(areas: readonly Area[]): OfferGroup[] {
    const about = 'replaces the application’s menu on the screens of this area';
    const itemsOf = ({ screens }: Area) =>
      screens
        .filter(({ binds }) => binds?.record !== 'existing')
        .map((screen) => ({ id: newId(), name: screen.name, screen: screen.id, items: [] }));
    const offers = areas
      .filter(({ frame }) => !frame)
      .map((area) => {
        const { id, name } = area;
        const seam = { slot: { in: id, list: 'frame' }, at: 0 } as const;
        return this.offer('frame', `Menu of ${name}`, about, seam, () => ({ name, items: itemsOf(area) }));
      });
    return offers.length > 0 ? [{ name: 'Menus of areas', offers }] : [];
  }

  /** Screens of an area: each gets its gate from what new screens get. */
  screens(area: Id): OfferGroup[] {
    const { definition } = this;
    const offer = (key: string, name: string, about: string, binds?: Screen['binds']): Offer => ({
      key: `${area} ${key}`,
      name,
      about,
      make: () => {
        const id = newId();
        const screen: Screen = {
          id,
          name: 'New screen',
          address: freeAddress(definition),
          ...(binds && { binds }),
          sections: [{ id: newId(), name: 'New section', parts: [] }],
        };
        return { id, edit: addScreen(definition, area, screen) };
      },
    });
    return [
      {
        name: 'Screens of this area',
        offers: [
          offer('screen', 'Screen', 'without a record'),
          ...definition.entities.flatMap(({ id, name }) => [
            offer(`existing ${id}`, `Screen of one ${name}`, 'shows a record', {
              entity: id,
              record: 'existing',
            }),
            offer(`new ${id}`, `Screen for a new ${name}`, 'creates a record', { entity: id, record: 'new' }),
          ]),
        ],
      },
    ];
  }

  onScreen(screen: Screen): OfferGroup[] {
    const faces = { slot: { in: screen.id, list: 'faces' }, at: screen.faces?.length ?? 0 } as const;
    const face = this.offer('face', 'Face', 'a layout for some viewers', faces, () => ({
      name: 'New face',
      sections: [],
    }));
    const [group] = this.sections({ slot: { in: screen.id, list: 'sections' }, at: screen.sections.length });
    return [{ name: 'On this screen', offers: [...(group?.offers ?? []), face] }];
  }

  sections(seam: Seam): OfferGroup[] {
    const section = this.offer('section', 'Section', 'holds fields, buttons, lists', seam, () => ({
      name: 'New section',
      parts: [],
    }));
    return [{ name: 'Sections', offers: [section] }];
  }

  /** Fields of the screen's entity that are not on it yet come first. */
  parts(screen: Screen, seam: Seam): OfferGroup[] {
    const entity = treeOf(this.definition).entityOf(screen.binds?.entity ?? '');
    const here = new Set(
      sectionsOf(screen).flatMap(({ parts }) =>
        parts.flatMap((part) => (part.kind === 'field' ? [part.field] : [])),
      ),
    );
    const missing = entity?.fields.filter(({ id }) => !here.has(id)) ?? [];
    const fields = missing.map((field) =>
      this.offer(
        `field ${field.id}`,
        field.name,
        typeInWords(this.definition, field),
        seam,
        () => ({ kind: 'field', field: field.id }),
        field.id,
      ),
    );
    const text = this.offer('text', 'Text', 'the same for everyone who can see it', seam, () => ({
      kind: 'text',
      text: 'New text',
    }));
    const people = this.offer('people', 'People', 'the people a viewer may manage', seam, () => ({
      kind: 'people',
      name: 'People',
    }));
    return [
      ...(entity
        ? [
            {
              name: `${entity.name} fields not on this screen`,
              offers: [...fields, this.newField(entity, seam)],
            },
          ]
        : []),
      { name: 'Lists', offers: this.definition.entities.flatMap((one) => this.lists(one, screen, seam)) },
      { name: 'Other parts', offers: [text, ...this.charts(screen, seam), people] },
      { name: 'Buttons', offers: this.buttons(screen, seam) },
    ];
  }

  /** A field that does not exist yet, made where it is needed. */
  private newField(entity: Entity, { slot, at }: Seam): Offer {
    return {
      key: `${slot.in} new field`,
      name: `New field of ${entity.name}`,
      about: 'text (you can change the type)',
      make: () => {
        const [field, id] = [newId(), newId()];
        const data: EntityField = { id: field, name: 'New field', type: { kind: 'text' } };
        const part: FieldPart = { kind: 'field', id, field };
        return {
          id,
          edit: {
            do: 'together',
            edits: [
              adding({ in: entity.id, list: 'fields' }, entity.fields.length, data),
              adding(slot, at, part),
            ],
          },
        };
      },
    };
  }

  private buttons(screen: Screen, seam: Seam, row?: List): Offer[] {
    return effectsOn(this.definition, screen, row).map(({ key, name, about, effect }) =>
      this.offer(key, name, about, seam, () => ({ kind: 'button', name, effect })),
    );
  }

  /** A list of an entity's records: first of those that belong to the screen's record, where some can. */
  private lists(entity: Entity, { binds }: Screen, seam: Seam): Offer[] {
    const one = binds?.record === 'existing' ? treeOf(this.definition).entityOf(binds.entity) : undefined;
    const pointing = entity.fields.filter(({ type }) => type.kind === 'record' && type.entity === one?.id);
    return [
      ...pointing.map(({ id, name }) =>
        this.list(
          entity,
          seam,
          `list ${entity.id} ${id}`,
          `those whose ${name} is the ${one?.name} on the screen`,
          id,
        ),
      ),
      this.list(
        entity,
        seam,
        `list ${entity.id}`,
        pointing.length > 0 ? 'all records' : 'a list of these records',
      ),
    ];
  }

  /** Charts of the lists on the screen that have a field to count by. */
  private charts(screen: Screen, seam: Seam): Offer[] {
    return sectionsOf(screen)
      .flatMap(({ parts }) => parts)
      .flatMap((part) => {
        if (part.kind !== 'list') return [];
        const [by] = countedBy(treeOf(this.definition).entityOf(part.entity));
        if (!by) return [];
        return this.offer(`chart ${part.id}`, `Chart of ${part.name}`, `count by ${by.name}`, seam, () => ({
          kind: 'chart',
          name: `${part.name} by ${by.name}`,
          list: part.id,
          by: by.id,
          shows: 'count',
          as: by.type.kind === 'date' ? 'line' : 'bars',
        }));
      });
  }

  private list(entity: Entity, seam: Seam, key: string, about: string, of?: Id): Offer {
    const opens = treeOf(this.definition)
      .screens()
      .find(({ binds }) => binds?.entity === entity.id && binds.record === 'existing');
    const shown = entity.fields.filter(({ id }) => id !== of).slice(0, 4);
    return this.offer(key, entity.plural, about, seam, () => ({
      kind: 'list',
      name: entity.plural,
      entity: entity.id,
      ...(of !== undefined && { of }),
      columns: shown.map(({ id }) => ({ id: newId(), field: id })),
      ...(opens && { opens: opens.id }),
      buttons: [],
    }));
  }

  columns(list: List, at: number): OfferGroup[] {
    const entity = treeOf(this.definition).entityOf(list.entity);
    const here = new Set(list.columns.map(({ field }) => field));
    const seam = { slot: { in: list.id, list: 'columns' }, at } as const;
    const offers = (entity?.fields ?? [])
      .filter(({ id }) => !here.has(id))
      .map((field) =>
        this.offer(
          `column ${field.id}`,
          field.name,
          typeInWords(this.definition, field),
          seam,
          () => ({ field: field.id }),
          field.id,
        ),
      );
    return offers.length > 0 ? [{ name: `Columns of ${list.name}`, offers }] : [];
  }

  rowButtons(list: List): OfferGroup[] {
    const screen = treeOf(this.definition).get(list.id)?.screen;
    if (!screen) return [];
    const seam = { slot: { in: list.id, list: 'buttons' }, at: list.buttons.length } as const;
    return [{ name: `Buttons in each row of ${list.name}`, offers: this.buttons(screen, seam, list) }];
  }

  items(seam: Seam, name: string): OfferGroup[] {
    const screens = treeOf(this.definition)
      .screens()
      .filter(({ binds }) => binds?.record !== 'existing')
      .map((screen) =>
        this.offer(`item ${screen.id}`, screen.name, `opens /${screen.address}`, seam, () => ({
          name: screen.name,
          screen: screen.id,
          items: [],
        })),
      );
    const heading = this.offer('heading', 'Heading', 'groups other items', seam, () => ({
      name: 'New heading',
      items: [],
    }));
    return [{ name, offers: [heading, ...screens] }];
  }

  data(entity: Entity, at: number): OfferGroup[] {
    const fields = { slot: { in: entity.id, list: 'fields' }, at } as const;
    const actions = { slot: { in: entity.id, list: 'actions' }, at: entity.actions.length } as const;
    return [
      {
        name: `Of ${entity.name}`,
        offers: [
          this.offer('field', 'Field', 'text (you can change the type)', fields, () => ({
            name: 'New field',
            type: { kind: 'text' },
          })),
          this.offer('action', 'Action', 'sets fields of a record', actions, () => ({
            kind: 'named',
            name: 'New action',
            sets: {},
          })),
        ],
      },
    ];
  }
}

const adding = (into: Slot, at: number, node: EntityField | Part): Edit => ({
  do: 'addElement',
  into,
  at,
  node: node as unknown as ElementNode,
  gates: {},
  closed: {},
});

const NEW_SCREEN = 'new-screen';

/** The address of a screen that is named for the first time; it keeps the one that it has where it was named before. */
export const addressOnNaming = (definition: Definition, { name, address }: Screen, to: string): string =>
  name.startsWith('New screen') && address.startsWith(NEW_SCREEN)
    ? freeAddress(definition, addressFrom(to, NEW_SCREEN))
    : address;

/** An address that no screen has: "new-screen", "new-screen-2" and so on. */
function freeAddress(definition: Definition, from = NEW_SCREEN): string {
  const taken = new Set(
    treeOf(definition)
      .screens()
      .map(({ address }) => address),
  );
  for (let n = 1; ; n++) {
    const address = n === 1 ? from : `${from}-${n}`;
    if (!taken.has(address)) return address;
  }
}
