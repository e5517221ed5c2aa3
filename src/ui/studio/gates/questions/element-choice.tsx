'use client';

import { ChevronDown } from 'lucide-react';
import { fullName } from '@/core/edit';
import { findElements } from '@/core/model';
import { ChooseBox, useBox } from '../../../parts/choose-box';
import { useBench } from '../../frame/bench';

const MOST = 60;

/** Chooses the selected element by its words. */
export function ElementChoice() {
  const { compiled, selected, select } = useBench();
  const box = useBox();
  const found = box.open ? findElements(compiled.tree, box.words, MOST) : [];
  return (
    <ChooseBox
      box={box}
      label="Element"
      placeholder="Find an element"
      none="No elements match this search."
      width="w-96"
      groups={[{ choices: found.map((one) => ({ key: one.id, name: fullName(one) })) }]}
      onChoose={select}
      trigger={
        <button
          type="button"
          aria-label={`Element: ${fullName(selected)}`}
          className="flex items-center gap-1.5 rounded-sm border border-edge px-2 py-1 hover:border-ink"
        >
          {fullName(selected)}
          <ChevronDown size={13} aria-hidden />
        </button>
      }
    />
  );
}
