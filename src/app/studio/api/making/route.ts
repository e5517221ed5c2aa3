import * as yup from 'yup';
import { emptyApplication, mannersSchema } from '@/core/making';
import { MOST_VALUES, oneOf } from '@/core/model';
import { draftOf } from '@/server/drafts/draft';
import { handle, json, readBody } from '@/server/http/handle';
import { copyApplication, definitionFrom, makeApplication } from '@/server/making/make';
import { needBuilder, needWorkplace } from '@/server/studio/builder';

const name = yup.string().max(500).required('is missing');
const slug = yup.string().max(200).required('is missing');
const body = oneOf('from', {
  nothing: { slug, manners: mannersSchema },
  copy: { slug, name, of: slug },
  file: { slug, name, definition: yup.mixed().required('is missing') },
});
const DOCUMENT = { bytes: 1_400_000, values: MOST_VALUES };

/** `POST …/making`: makes an application from nothing, as a copy of one, or from a definition file. */
export const POST = handle(async (request) => {
  const builder = await needBuilder();
  const asked = await readBody(request, body, DOCUMENT);
  const { slug } = asked;
  if (asked.from === 'copy') {
    const { applicationId } = await needWorkplace(asked.of, 'read');
    const { definition } = await draftOf(applicationId);
    await copyApplication(builder.id, { applicationId, definition }, asked.name, slug);
  } else {
    const definition =
      asked.from === 'nothing'
        ? emptyApplication(asked.manners)
        : definitionFrom(asked.definition, asked.name);
    await makeApplication(builder.id, { slug, definition, from: asked.from });
  }
  return json({ slug }, { status: 201 });
});
