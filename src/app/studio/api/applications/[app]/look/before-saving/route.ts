import { lookBeforeSaving } from '@/contract/studio/look';
import { sectionsBeforeSaving } from '@/server/live/before-saving';
import { inLook } from '@/server/look/answering';

export const POST = inLook(lookBeforeSaving, async ({ scope }, { body }) => ({
  sections: await sectionsBeforeSaving(scope, body),
}));
