import { compile } from '@/core';
import { kindsOf } from '@/core/access';
import { placeInWords } from '@/core/edit';
import { findElements } from '@/core/model';
import { draftOf } from '@/server/drafts/draft';
import { handle, json } from '@/server/http/handle';
import { listPeople } from '@/server/people/list';
import { needWorkplace } from '@/server/studio/builder';

const MOST = 12;

/** `GET …/find?q=`: elements, viewers and people that have these words in their names. */
export const GET = handle<{ params: Promise<{ app: string }> }>(async (request, { params }) => {
  const { applicationId } = await needWorkplace((await params).app, 'read');
  const q = (new URL(request.url).searchParams.get('q') ?? '').slice(0, 200);
  const { definition } = await draftOf(applicationId);
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const has = ({ name }: { readonly name: string }): boolean =>
    words.every((word) => name.toLowerCase().includes(word));
  const { people } = await listPeople(applicationId, { q, page: 1, size: MOST });
  return json({
    elements: findElements(compile(definition).tree, q, MOST).map((one) => ({
      id: one.id,
      name: one.name,
      place: placeInWords(one),
    })),
    viewers: kindsOf(definition)
      .filter(has)
      .map(({ key, name }) => ({ key, name })),
    people: people.map(({ id, name }) => ({ id, name })),
  });
});
