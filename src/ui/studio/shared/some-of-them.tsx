import type { Numbers } from '@/core';
import { allAlike } from '@/core/access';
import { amongInWords } from '@/core/edit';
import type { AppElement } from '@/core/model';

interface Props {
  readonly numbers: Numbers;
  /** The viewer's key. */
  readonly viewer: string;
  readonly viewerName: string;
  readonly element: AppElement;
  readonly onLook: (person: string) => void;
}

/** Where a kind's people differ: how many get it, and one who gets it and one who does not, to look as. */
export function SomeOfThem({ numbers, viewer, viewerName, element, onLook }: Props) {
  const among = numbers.among(viewer, element);
  const two = numbers.oneOfEach(viewer, element);
  if (!among || allAlike(among) || !two) return null;
  const button = ({ id, name }: { readonly id: string; readonly name: string }) => (
    <button type="button" className="link" onClick={() => onLook(id)}>
      {name}
    </button>
  );
  return (
    <p className="mt-2 mb-3">
      Among people with {viewerName}: {amongInWords(element.kind, among)}. View as {button(two.most)}, who has
      access, or as {button(two.least)}, who has less access.
    </p>
  );
}
