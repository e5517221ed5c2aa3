import type { Edit } from '@/core/edit';

let added = false;

/** Whether the edit adds something with a name, here or within something else: the name is what is written next. */
export function noteAdding(edit: Edit): void {
  const named = (item: unknown): number => JSON.stringify(item).split('"name"').length;
  added =
    edit.do === 'addItem' ||
    (edit.do === 'changeItem' && named(edit.to) > named(edit.from) && hasRoom(edit.list));
}

/** Something was added, and its name is drawn next. */
export const noteAdded = (): void => {
  added = true;
};

const hasRoom = (list: string): boolean => list === 'units' || list === 'privileges';

/** Has something just been added whose name is drawn now? Told once. */
export function takeAdded(): boolean {
  const was = added;
  added = false;
  return was;
}
