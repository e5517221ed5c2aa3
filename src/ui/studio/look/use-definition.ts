'use client';

import type { Definition } from '@/core/model';
import { useAsked } from '@/ui/client/queries';
import { lookDefinition } from '@/contract/studio/look';

/**
 * The definition that a pane is on: the draft, or an older one or a release. Until that is here it is the draft; where
 * it cannot be had, `problem` says so.
 */
export function useDefinition(
  app: string,
  on: string,
  draft: Definition,
): { readonly definition: Definition; readonly problem: string } {
  const older = useAsked(lookDefinition, on === 'draft' ? undefined : { app, query: { on } }, {
    goodFor: Infinity,
  });
  return {
    definition: older.data?.definition ?? draft,
    problem: older.error ? 'The definition for this pane could not be loaded. Try again.' : '',
  };
}
