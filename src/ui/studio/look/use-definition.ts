'use client';

import { useEffect, useState } from 'react';
import type { Definition } from '@/core/model/definition';
import { askOnce } from './ask-once';

/**
 * The definition that a pane is on: the draft, or an older one or a release. Until that is here it is the draft; where
 * it cannot be had, `problem` says so.
 */
export function useDefinition(
  api: string,
  on: string,
  draft: Definition,
): { readonly definition: Definition; readonly problem: string } {
  const [older, setOlder] = useState<{
    readonly on: string;
    readonly definition?: Definition;
    readonly problem: string;
  }>();
  useEffect(() => {
    if (on === 'draft') return;
    let gone = false;
    const url = `${api}/look/definition?on=${encodeURIComponent(on)}`;
    void askOnce<{ definition: Definition }>(url).then((answer) => {
      if (gone) return;
      setOlder(
        answer.ok
          ? { on, definition: answer.value.definition, problem: '' }
          : { on, problem: 'What it is on could not be loaded.' },
      );
    });
    return () => {
      gone = true;
    };
  }, [api, on]);
  const found = on !== 'draft' && older?.on === on ? older : undefined;
  return { definition: found?.definition ?? draft, problem: found?.problem ?? '' };
}
