import type { Question } from '../parts/asking';

/** What is asked before a record is deleted. */
export const deleting = (button: string): Question => ({
  title: button,
  text: 'This cannot be undone.',
  go: button,
});
