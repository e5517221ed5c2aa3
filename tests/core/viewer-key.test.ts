import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { everybody, idInKey, kindsOf, readViewerKey, viewerKey } from '@/core/access/deciding/viewer-key';
import { isKind, SIGNED_OUT, type Person } from '@/core/access/deciding/viewer';
import { LARKFIELD } from '@/demo/definition';

describe('a viewer’s key', () => {
  it('is read as it was written, whatever is in it', () => {
    const kinds = ['role', 'group', 'person', 'kept', 'made'] as const;
    fc.assert(
      fc.property(fc.constantFrom(...kinds), fc.string({ minLength: 1 }), (kind, id) => {
        expect(readViewerKey(viewerKey(kind, id))).toEqual({ kind, id });
        for (const one of kinds)
          expect(idInKey(one, viewerKey(kind, id))).toBe(one === kind ? id : undefined);
      }),
    );
  });

  it.each(['', 'role', 'role:', 'owner:ada', 'signed-out:x', 'Signed-out', ':x'])('“%s” is none', (key) =>
    expect(readViewerKey(key)).toBeUndefined(),
  );

  it('has a column for each kind of viewer, each under its own', () => {
    const columns = kindsOf(LARKFIELD);
    expect(new Set(columns.map(({ key }) => key)).size).toBe(
      2 + LARKFIELD.roles.length + LARKFIELD.groups.length,
    );
    for (const { key, viewer } of columns.slice(1)) {
      expect(readViewerKey(key)).toBeDefined();
      expect(isKind(viewer)).toBe(true);
    }
  });

  it('names everybody: who is signed out, and who may sign in', () => {
    const ada: Person = { id: 'ada', name: 'Ada', active: true, assignments: [], attributes: {} };
    const off = { ...ada, id: 'off', active: false };
    expect(everybody([ada, off]).map(({ key }) => key)).toEqual(['signed-out', 'person:ada']);
    expect(everybody([])[0]?.viewer).toBe(SIGNED_OUT);
  });
});
