import { notFound, redirect } from 'next/navigation';
import { addressNow } from '../former-address';
import { thisBuilder, workplaceOf, type Builder, type Workplace } from './builder';

/** The builder whose page this is; who is not signed in is led to it and back. */
export async function signedInBuilder(back: string): Promise<Builder> {
  const builder = await thisBuilder();
  return builder ?? redirect(`/studio/sign-in?back=${encodeURIComponent(back)}`);
}

/** What stands behind the ? of an address, as pages are given it. */
export type PageQuery = Readonly<Record<string, string | string[] | undefined>>;

/**
 * The workplace whose bench this is. Who is not signed in is led to it and back to the bench, with its query; where
 * the application is not theirs, there is no such page.
 */
export async function benchOf(slug: string, bench: string, asking: PageQuery = {}): Promise<Workplace> {
  const query = new URLSearchParams();
  for (const [key, values] of Object.entries(asking))
    for (const value of [values ?? []].flat()) query.append(key, value);
  const asked = query.size > 0 ? `?${query}` : '';
  const builder = await signedInBuilder(`/studio/${slug}/${bench}${asked}`);
  const workplace = await workplaceOf(builder, slug);
  if (workplace) return workplace;
  const now = await addressNow(slug);
  // Only to whom it is theirs: others are not told that it was ever there.
  if (now === undefined || !(await workplaceOf(builder, now))) notFound();
  redirect(`/studio/${now}/${bench}${asked}`);
}
