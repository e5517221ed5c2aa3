'use client';

import { Popover } from 'radix-ui';
import { useState, type ComponentProps, type ReactElement } from 'react';
import { ChoiceList } from './choice-list';

/** Whether a box is open, and what is typed in it: for who looks for what fits. Closing it forgets the words. */
export function useBox() {
  const [open, setOpen] = useState(false);
  const [words, setWords] = useState('');
  const turn = (to: boolean): void => {
    setOpen(to);
    if (!to) setWords('');
  };
  return { open, turn, words, setWords };
}

interface Props extends Omit<ComponentProps<typeof ChoiceList>, 'words' | 'onWords'> {
  readonly box: ReturnType<typeof useBox>;
  /** The button that opens it. */
  readonly trigger: ReactElement;
  readonly place?: Pick<ComponentProps<typeof Popover.Content>, 'side' | 'align'>;
  readonly width?: string;
}

/** A button that opens a box to choose something by its words. */
export function ChooseBox({ box, trigger, place = { align: 'start' }, width = 'w-80', ...list }: Props) {
  return (
    <Popover.Root open={box.open} onOpenChange={box.turn}>
      <Popover.Trigger asChild>{trigger}</Popover.Trigger>
      <Popover.Portal>
        <Popover.Content sideOffset={4} className={`popover ${width}`} {...place}>
          <ChoiceList
            {...list}
            words={box.words}
            onWords={box.setWords}
            onChoose={(key) => {
              box.turn(false);
              list.onChoose(key);
            }}
          />
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  );
}
