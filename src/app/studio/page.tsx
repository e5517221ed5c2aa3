import type { Metadata } from 'next';
import { signedInBuilder } from '@/server/studio/entry';
import { homeOf } from '@/server/studio/home';
import { Home } from '@/ui/studio/home/home';
import { HomeFrame } from '@/ui/studio/home/home-frame';

export const metadata: Metadata = { title: 'Applications' };

/** The home of the studio: the applications that one may work in. */
export default async function StudioPage() {
  const builder = await signedInBuilder('/studio');
  return (
    <HomeFrame builder={builder.name}>
      <Home applications={await homeOf(builder.id)} />
    </HomeFrame>
  );
}
