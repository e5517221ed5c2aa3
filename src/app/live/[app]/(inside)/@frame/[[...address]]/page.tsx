import { readAddress } from '@/core';
import { frameAround } from '@/core/access';
import { thisPage } from '@/server/live/this-page';
import { asSent } from '@/ui/live/sent';
import { askedAt, type AddressProps } from '../../../address';
import { LiveFrame } from '../../live-frame';

/** What stands around a page: the frame of its area, where the screen is open to who asks; else the application's. */
export default async function FrameAt(props: AddressProps) {
  const { app, address, query } = await askedAt(props);
  const page = await thisPage(app, address, query);
  if (!page) return null;
  const { visit, outcome } = page;
  const { access } = visit;
  const screen = outcome.is === 'open' ? readAddress(access.compiled.tree, address)?.screen : undefined;
  return (
    <LiveFrame
      app={app}
      frame={asSent(frameAround(access, screen))}
      person={visit.person?.name}
      mayStandIn={visit.mayStandIn && !visit.standing}
    />
  );
}
