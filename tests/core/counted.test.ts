import { describe, expect, it } from 'vitest';
import { counted, countedOr, plural } from '@/core/edit';

describe('so many of something', () => {
  it.each([
    [counted(0, 'finding'), '0 findings'],
    [counted(1, 'finding'), '1 finding'],
    [counted(1200, 'finding'), '1,200 findings'],
    [counted(1, 'person has', 'people have'), '1 person has'],
    [counted(21, 'person has', 'people have'), '21 people have'],
    [countedOr('nobody', 0, 'person', 'people'), 'nobody'],
    [countedOr('nobody', 1, 'person', 'people'), '1 person'],
    [plural(2, 'This file is', 'These files are'), 'These files are'],
  ])('%s', (said, should) => {
    expect(said).toBe(should);
  });
});
