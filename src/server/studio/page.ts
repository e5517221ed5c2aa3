import { redirect } from 'next/navigation';
import { thisBuilder, type Builder } from './builder';

/** The builder whose page this is; who is not signed in is led to it and back. */
export async function signedInBuilder(back: string): Promise<Builder> {
  const builder = await thisBuilder();
  return builder ?? redirect(`/studio/sign-in?back=${encodeURIComponent(back)}`);
}
