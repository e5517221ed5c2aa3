import { emptyApplication } from '@/core/making';
import { MOST_VALUES } from '@/core/model';
import { makingSchema } from '@/contract/schemas/making';
import { draftOf } from '../drafts/draft';
import { parseBody } from '../http/body';
import { notThere } from '../http/problem';
import type { Run } from '../http/progress';
import { workplaceIn } from '../studio/builder';
import { copyApplication, definitionFrom, makeApplication } from './make';

/** Makes an application from nothing, as a copy of one of the builder's, or from a definition file, as it was sent. */
export async function makeAsSent(
  builderId: string,
  body: string,
  { tell, signal }: Run,
): Promise<{ readonly slug: string }> {
  const asked = parseBody(body, makingSchema, { values: MOST_VALUES });
  if (asked.from === 'copy') {
    const applicationId = await workplaceIn(builderId, asked.of);
    if (applicationId === undefined) throw notThere();
    const { definition } = await draftOf(applicationId);
    await copyApplication(builderId, { applicationId, definition }, asked.name, asked.slug, tell, signal);
  } else {
    const definition =
      asked.from === 'nothing'
        ? emptyApplication(asked.manners)
        : definitionFrom(asked.definition, asked.name);
    await makeApplication(builderId, { slug: asked.slug, definition, from: asked.from }, tell, signal);
  }
  return { slug: asked.slug };
}
