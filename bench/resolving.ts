import { accessOf, compile, resolve } from '@/core';
import { type KnownRecord, rightNow, type ShownScreen, type Viewer } from '@/core/access';
import { type Definition, type EntityField, type FieldPart, type Gate, withIncluded } from '@/core/model';
import { deepStrictEqual } from 'node:assert';
import { Random } from '@/core/making';
import { median, type Measure } from './measure';

const ROLES = 40;
const FIELDS = 39;
const VIEWERS = 1000;

/** A screen of 40 elements: 39 fields, each with a gate of its own, and the button that saves them. */
function application(random: Random): Definition {
  const fields = Array.from({ length: FIELDS }, (_, n): EntityField => ({
    id: `f${n}`,
    name: `Field ${n}`,
    type: n % 3 === 0 ? { kind: 'money' } : { kind: 'text' },
  }));
  fields[0] = { id: 'f0', name: 'Label', type: { kind: 'text' } };
  const parts = fields.map((field): FieldPart => ({ kind: 'field', id: `p_${field.id}`, field: field.id }));
  const gates: Record<string, Gate> = {
    bench: { lines: [{ id: 'l', who: { kind: 'signed-in' }, what: 'edit' }] },
  };
  const role = (): string => `r${random.whole(0, ROLES - 1)}`;
  for (const { id } of parts)
    gates[id] = {
      lines: [
        { id: 'a', who: { kind: 'role', role: role() }, what: 'edit' },
        { id: 'b', who: { kind: 'role', role: role() }, what: 'see' },
        { id: 'c', who: { kind: 'role', role: role() }, what: 'see' },
        { id: 'd', who: { kind: 'role', role: role(), exactly: true }, what: 'block' },
      ],
    };
  return {
    format: 3,
    id: 'bench',
    name: 'Bench',
    currency: 'GBP',
    language: 'en-GB',
    timeZone: 'UTC',
    newScreens: 'nobody',
    signUp: false,
    privileges: [],
    units: [],
    attributes: [],
    groups: [],
    conditions: [],
    sessionValues: [],
    // Ten ladders of four roles, each including the one before.
    roles: Array.from({ length: ROLES }, (_, n) => ({
      id: `r${n}`,
      name: `Role ${n}`,
      includes: n % 4 ? [`r${n - 1}`] : [],
      privileges: [],
    })),
    entities: [
      {
        id: 'thing',
        name: 'Thing',
        plural: 'Things',
        labelField: 'f0',
        fields,
        actions: [
          { kind: 'create', id: 'create', name: 'Create' },
          { kind: 'update', id: 'update', name: 'Update' },
          { kind: 'delete', id: 'delete', name: 'Delete' },
        ],
      },
    ],
    areas: [
      {
        id: 'area',
        name: 'Area',
        screens: [
          {
            id: 'screen',
            name: 'Screen',
            address: 'things',
            binds: { entity: 'thing', record: 'existing' },
            sections: [
              {
                id: 'section',
                name: 'Section',
                parts: [...parts, { kind: 'button', id: 'save', name: 'Save', effect: { do: 'save' } }],
              },
            ],
          },
        ],
      },
    ],
    menu: { id: 'menu', items: [] },
    gates,
    closed: {},
  };
}

type Plain = (
  held: ReadonlySet<string>,
  direct: ReadonlySet<string>,
  record: KnownRecord,
  money: Intl.NumberFormat,
) => ShownScreen;

/**
 * The same tree, written out with plain `if`s as one would for this one screen: a statement a field, no
 * gates, no doors, nothing general.
 */
function plainFunction({ entities, gates }: Definition): Plain {
  const body = (entities[0]?.fields ?? []).map((field) => {
    const [edit, see, see2, block] = (gates[`p_${field.id}`]?.lines ?? []).map(({ who }) =>
      who.kind === 'role' ? who.role : '',
    );
    const isMoney = field.type.kind === 'money';
    const text = isMoney ? `v === null ? '' : money.format(v)` : `v === null ? '' : String(v)`;
    return `
      if (!direct.has('${block}')) {
        const edits = held.has('${edit}');
        if (edits || held.has('${see}') || held.has('${see2}')) {
          const v = record.values.${field.id} ?? null;
          const shown = { kind: 'field', id: 'p_${field.id}', field: '${field.id}', label: '${field.name}', value: v, text: ${text}, align: '${isMoney ? 'end' : 'start'}' };
          if (edits) shown.input = { type: ${isMoney ? 'MONEY' : 'TEXT'}, required: false };
          parts.push(shown);
          ${field.id === 'f0' ? 'heading = record.values.f0;' : ''}
        }
      }`;
  });
  const source = `
    const MONEY = { kind: 'money' }, TEXT = { kind: 'text' };
    return (held, direct, record, money) => {
      const parts = [];
      let heading = 'Screen';
      ${body.join('')}
      parts.push({ kind: 'button', id: 'save', name: 'Save', usable: true, effect: { do: 'save' } });
      return { id: 'screen', heading, binds: { entity: 'thing', record: record.id }, sections: [{ id: 'section', name: 'Section', parts }] };
    };`;
  return new Function(source)() as Plain;
}

/** (a) Resolving a screen of 40 elements for 1,000 viewers, against the same written with plain ifs. */
export function measureResolving(): Measure[] {
  const random = new Random(7);
  const definition = application(random);
  const screen = definition.areas[0]?.screens[0];
  if (!screen) throw new Error('No screen');
  const entity = definition.entities[0];
  if (!entity) throw new Error('No entity');
  const record: KnownRecord = {
    id: 'k1',
    entity,
    values: Object.fromEntries(
      Array.from({ length: FIELDS }, (_, n) => [`f${n}`, n % 3 || n === 0 ? `text ${n}` : `${n}.5`]),
    ),
  };
  const viewers = Array.from({ length: VIEWERS }, () => {
    const roles = Array.from({ length: random.whole(1, 3) }, () => `r${random.whole(0, ROLES - 1)}`);
    const viewer: Viewer = { kind: 'signed-in', assignments: roles.map((role) => ({ role })) };
    return { viewer, held: withIncluded(definition, roles), direct: new Set(roles) };
  });
  const money = new Intl.NumberFormat('en-GB', {
    style: 'currency',
    currency: 'GBP',
    trailingZeroDisplay: 'stripIfInteger',
  });
  const plain = plainFunction(definition);
  const compiled = compile(definition);
  const at = rightNow();
  for (const { viewer, held, direct } of viewers)
    deepStrictEqual(
      resolve(accessOf(compiled, viewer, at), screen, record),
      plain(held, direct, record, money),
    );
  const ours = (): void => {
    for (const { viewer } of viewers) resolve(accessOf(compiled, viewer, at), screen, record);
  };
  const byHand = (): void => {
    for (const { held, direct } of viewers) plain(held, direct, record, money);
  };
  const cold = (): void => {
    const anew = compile({ ...definition });
    for (const { viewer } of viewers) resolve(accessOf(anew, viewer, at), screen, record);
  };
  const [a, b, c] = median([ours, byHand, cold], 25);
  return [
    {
      name: 'resolve 40 elements × 1,000 viewers',
      ours: a ?? 0,
      against: b ?? 0,
      unit: 'ms',
      ratio: (a ?? 0) / (b ?? 1),
      most: 2,
    },
    {
      name: 'the same, compiling first and nothing shared yet',
      ours: c ?? 0,
      against: b ?? 0,
      unit: 'ms',
      ratio: (c ?? 0) / (b ?? 1),
    },
  ];
}
