import * as yup from 'yup';
import { attributesOf, readConstants } from '../../condition/type';
import type { Definition } from '../../model/definition';
import { isMoment } from '../../model/moment';
import { checkShape, exactly, listOf, optional } from '../../model/shape';
import { type MadeViewer, type Person, type Viewer, viewerOfPerson } from './viewer';
import { kindsOf, readViewerKey } from './viewer-key';

/** A moment with its zone (RFC 3339), in a year that every store knows. */
const moment = yup
  .string()
  .max(40)
  .test(
    'moment',
    'must be a date and time with a time zone, such as 2026-03-14T09:30:00Z',
    (text) => !text || isMoment(text),
  );

/** Role assignments as they are sent. */
export const assignmentsSchema = listOf(
  exactly({
    role: yup.string().max(60).required(),
    unit: yup.string().max(60),
    from: moment,
    until: moment,
  }),
  200,
);

/** A made-up viewer as it is sent: any mix of roles with units and periods, groups, attributes and session values. */
export const madeViewerSchema = exactly({
  assignments: assignmentsSchema,
  attributes: yup.object(),
  session: yup.object(),
  groups: optional(listOf(yup.string().max(60).required(), 200)),
}) as unknown as yup.Schema<MadeViewer>;

/** A made-up viewer from the JSON in its key; undefined where that is none. */
export function readMade(text: string): MadeViewer | undefined {
  let given: unknown;
  try {
    given = JSON.parse(text);
  } catch {
    return undefined;
  }
  const read = checkShape(madeViewerSchema, given, { values: 2000 });
  return read.ok ? read.value : undefined;
}

/** A made-up viewer, with those of its attributes that the definition knows. */
export const viewerOfMade = (definition: Definition, made: MadeViewer): Viewer => ({
  kind: 'signed-in',
  assignments: made.assignments,
  ...(made.groups && { groups: made.groups }),
  attributes: readConstants(definition, attributesOf(definition), made.attributes ?? {}),
});

/** Who can be meant by a key, beside the definition's kinds of viewers. */
export interface KnownViewers {
  person(id: string): Person | undefined;
  kept(id: string): MadeViewer | undefined;
}

/** The viewer that a key names; undefined for one that is not there. */
export function viewerOfKey(definition: Definition, known: KnownViewers, key: string): Viewer | undefined {
  const read = readViewerKey(key);
  switch (read?.kind) {
    case 'person': {
      const person = known.person(read.id);
      return person && viewerOfPerson(person);
    }
    case 'kept': {
      const kept = known.kept(read.id);
      return kept && viewerOfMade(definition, kept);
    }
    case 'made': {
      const made = readMade(read.id);
      return made && viewerOfMade(definition, made);
    }
    case 'group':
    case 'role':
    case 'signed-in':
    case 'signed-out':
    case undefined:
      return kindsOf(definition).find((one) => one.key === key)?.viewer;
  }
}
