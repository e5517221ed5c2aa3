'use client';

import { useMemo, type ReactElement } from 'react';
import { offersAt, offersInto, type Seam } from '@/core/edit';
import { ChooseBox, useBox } from '../../parts/choose-box';
import { hasWords } from '../../parts/choice-list';
import { useBench } from '../frame/bench';

interface Props {
  /** Where it is to come; without one, in the selected element, or behind it. */
  readonly seam?: Seam;
  /** The button that opens it. */
  readonly trigger: ReactElement;
  readonly onAdded: (id: string) => void;
}

/** What can come to a place. Fields that are not on the screen yet come first. */
export function AddHere({ seam, trigger, onAdded }: Props) {
  const { definition, selected, numbers, compiled, apply } = useBench();
  const box = useBox();
  // Only what is open needs its offers: of many screens they are many.
  const groups = useMemo(
    () => (!box.open ? [] : seam ? offersInto(definition, seam) : offersAt(definition, selected)),
    [box.open, definition, selected, seam],
  );
  const all = groups.flatMap(({ offers }) => offers);
  /** Who sees a field elsewhere already, so that one knows for whom it would be new. */
  const seenBy = (field: string | undefined): string => {
    const door = field === undefined ? undefined : compiled.tree.get(field);
    const among = door && numbers.among('signed-in', door);
    if (!among || among.of === 0) return '';
    const some = among.see + among.edit;
    return some === 0 ? '(not visible to anyone yet)' : `(visible to ${some} of ${among.of} elsewhere)`;
  };
  return (
    <ChooseBox
      box={box}
      width="w-96"
      place={{ align: seam ? 'start' : 'end' }}
      label="What do you want to add here?"
      placeholder="Search what can be added here"
      none={all.length > 0 ? 'Nothing with this name can be added here.' : 'Nothing can be added here.'}
      groups={groups.map(({ name, offers }) => ({
        heading: name,
        choices: offers
          .filter((one) => hasWords(one.name, box.words))
          .map(({ key, name: called, about, shows }) => ({
            key,
            name: called,
            note: `${about}${seenBy(shows)}`,
          })),
      }))}
      onChoose={(key) => {
        const offer = all.find((one) => one.key === key);
        if (!offer) return;
        const { edit, id } = offer.make();
        apply(edit);
        onAdded(id);
      }}
      trigger={trigger}
    />
  );
}
