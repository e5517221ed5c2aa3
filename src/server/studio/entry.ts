import { notFound, redirect } from 'next/navigation';
import { thisBuilder, workplaceOf, type Builder, type Workplace } from './builder';

/** The builder whose page this is; who is not signed in is led to it and back. */
export async function signedInBuilder(back: string): Promise<Builder> {
  const builder = await thisBuilder();
  return builder ?? redirect(`/studio/sign-in?back=${encodeURIComponent(back)}`);
}

/**
 * The workplace whose bench this is. Who is not signed in is led to it and back to the bench, with its query; where
 * the application is not theirs, there is no such page.
 */
export async function benchOf(slug: string, bench: string, query: string[][] = []): Promise<Workplace> {
  const asked = query.length > 0 ? `?${new URLSearchParams(query)}` : '';
  const builder = await signedInBuilder(`/studio/${slug}/${bench}${asked}`);
  return (await workplaceOf(builder, slug)) ?? notFound();
}
