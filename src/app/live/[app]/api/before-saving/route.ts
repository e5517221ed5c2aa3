import { liveBeforeSaving } from '@/contract/live';
import { inLive } from '@/server/live/answering';
import { sectionsBeforeSaving } from '@/server/live/before-saving';
import { scopeOf } from '@/server/live/visit';

export const POST = inLive(liveBeforeSaving, async (now, { body }) => ({
  sections: await sectionsBeforeSaving(scopeOf(now), body),
}));
