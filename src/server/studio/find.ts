import { compile } from '@/core';
import { kindsOf } from '@/core/access';
import { placeInWords } from '@/core/edit';
import { findElements } from '@/core/model';
import type { FoundByName } from '@/contract/studio/draft';
import { draftOf } from '../drafts/draft';
import { listPeople } from '../people/list';

const MOST = 12;

/** Elements, viewers and people that have these words in their names: the first of each. */
export async function findByName(applicationId: string, q: string): Promise<FoundByName> {
  const { definition } = await draftOf(applicationId);
  const words = q.toLowerCase().split(/\s+/).filter(Boolean);
  const has = ({ name }: { readonly name: string }): boolean =>
    words.every((word) => name.toLowerCase().includes(word));
  const { people } = await listPeople(applicationId, { q, page: 1, size: MOST });
  return {
    elements: findElements(compile(definition).tree, q, MOST).map((element) => ({
      id: element.id,
      name: element.name,
      place: placeInWords(element),
    })),
    viewers: kindsOf(definition)
      .filter(has)
      .map(({ key, name }) => ({ key, name })),
    people: people.map(({ id, name }) => ({ id, name })),
  };
}
