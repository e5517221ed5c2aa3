'use client';

import type { Edit } from '@/core/edit';
import type { Definition } from '@/core/model';
import { useTell } from '../../parts/toasts';
import { useDraft, useStudio } from '../shell/studio-work';
import { noteAdding } from '@/ui/parts/just-added';

/** What the parts of the people bench work with. */
interface PeopleWork {
  readonly definition: Definition;
  /** `/studio/api/applications/<app>` */
  readonly app: string;
  readonly mayChange: boolean;
  /** May they manage people, who are live? */
  readonly mayManage: boolean;
  /** Are they the application's owner, who gives rights? */
  readonly owns: boolean;
  readonly apply: (edit: Edit) => void;
  readonly tell: (message: string) => void;
}

export function usePeopleWork(): PeopleWork {
  const { app, mayChange, mayManage, owns, store } = useStudio();
  const { definition } = useDraft();
  const tell = useTell();
  const apply = (edit: Edit): void => {
    noteAdding(edit);
    store.apply(edit);
  };
  return { definition, app, mayChange, mayManage, owns, apply, tell };
}
