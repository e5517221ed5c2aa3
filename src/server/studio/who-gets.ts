import { compile, viewerOfPerson, whoGets } from '@/core';
import { rightNow, type WhoGetsNamed } from '@/core/access';
import type { Id } from '@/core/model';
import { draftOf } from '../drafts/draft';
import { notThere } from '../http/problem';
import { peopleCounted } from '../people/read';

/** So many are named under each way in; the others are counted. */
const MOST_NAMES = 300;

/** Who of the application's people gets this element of the draft at this moment. Throws where there is no such element. */
export async function whoGetsNow(applicationId: string, element: Id): Promise<WhoGetsNamed> {
  const [{ definition }, everybody] = await Promise.all([
    draftOf(applicationId),
    peopleCounted(applicationId),
  ]);
  const compiled = compile(definition);
  if (!compiled.tree.get(element)) throw notThere();
  const people = everybody.filter(({ active }) => active);
  const names = new Map(people.map(({ id, name }) => [id, name]));
  const viewers = people.map((one) => ({ id: one.id, viewer: viewerOfPerson(one) }));
  const found = whoGets(compiled, element, viewers, rightNow());
  return {
    ...found,
    of: people.length,
    ways: found.ways.map((way) => ({
      ...way,
      count: way.people.length,
      people: way.people.slice(0, MOST_NAMES).map((one) => ({ ...one, name: names.get(one.id) ?? one.id })),
    })),
  };
}
