import { plural } from '@/core/edit';
/** What the server takes at once. */
const MOST_MEGABYTES = 30;

/** What is wrong with the size of files that are to be sent together; undefined where nothing is. */
export function tooLarge(files: readonly File[]): string | undefined {
  const megabytes = files.reduce((sum, { size }) => sum + size, 0) / 1e6;
  if (megabytes <= MOST_MEGABYTES) return undefined;
  const are = plural(files.length, 'This file is', 'These files are');
  return `${are} ${Math.ceil(megabytes)} MB, but the limit is ${MOST_MEGABYTES} MB per upload. Start with fewer rows and add the rest later.`;
}
