import { accessOf, compile, viewerOfPerson, whatIsWrong } from '@/core';
import { Grants, rightNow, SIGNED_IN } from '@/core/access';
import { type Condition } from '@/core/condition';
import { tryCondition } from '@/core/access';
import { and, asc, eq } from 'drizzle-orm';
import { conditionToTrySchema } from '@/contract/schemas/draft';
import type { Count, ConditionPreview } from '@/contract/studio/draft';
import { database } from '../database/client';
import { records } from '../database/schema';
import { draftOf } from '../drafts/draft';
import { parseBody } from '../http/body';
import { Refused } from '../http/problem';
import { peopleCounted } from '../people/read';
import { knownRecords } from '../records/read';

const MOST_PEOPLE = 500;
const MOST_RECORDS = 300;
const EXAMPLES = 40;

/** Tries a condition, as it was sent. */
export async function tryAsSent(applicationId: string, body: string): Promise<ConditionPreview> {
  const { condition, entity } = parseBody(body, conditionToTrySchema);
  return tryOut(applicationId, condition, entity);
}

/** Tries a condition on the application's active people and sample records, at this moment. */
async function tryOut(
  applicationId: string,
  condition: Condition,
  entityId: string | undefined,
): Promise<ConditionPreview> {
  const { definition } = await draftOf(applicationId);
  const entity = definition.entities.find((one) => one.id === entityId);
  const scope = { definition, entity };
  const wrong = whatIsWrong(scope, condition);
  if (wrong) throw new Refused(422, 'condition', `${wrong.message} ${wrong.mend}`);
  const people = (await peopleCounted(applicationId)).filter((one) => one.active).slice(0, MOST_PEOPLE);
  const at = rightNow();
  const held = people.map((person) => new Grants(definition, viewerOfPerson(person), at));
  const stored = entity
    ? await database()
        .select({ id: records.id, version: records.version, values: records.data })
        .from(records)
        .where(
          and(
            eq(records.applicationId, applicationId),
            eq(records.kind, 'sample'),
            eq(records.entity, entity.id),
          ),
        )
        .orderBy(asc(records.createdAt), asc(records.id))
        .limit(MOST_RECORDS)
    : [];
  const access = accessOf(compile(definition), { kind: 'signed-out' }, at);
  const known = entity ? await knownRecords({ applicationId, kind: 'sample', access }, entity, stored) : [];
  // While there are no people, records count for whoever may come.
  const anybody = held.length > 0 ? held : [new Grants(definition, SIGNED_IN, at, 'for')];
  const tried = tryCondition(scope, condition, anybody, known);
  const count = (hits: readonly number[], names: readonly string[]): Count => ({
    hits: hits.length,
    of: names.length,
    examples: hits.slice(0, EXAMPLES).map((n) => names[n] ?? ''),
  });
  return {
    people: count(
      held.length > 0 ? tried.people : [],
      people.map((one) => one.name),
    ),
    ...(entity && {
      records: count(
        tried.records,
        known.map((one) => String(one.values[entity.labelField] ?? one.id)),
      ),
    }),
  };
}
