'use client';

import type { FieldPart } from '@/core/model';
import { typeInWords } from '@/core/edit';
import { useBench } from '../frame/bench';
import { KeptText } from '@/ui/parts/kept-text';
import { FieldChoice } from './field-choice';
import { Labelled } from './labelled';
import { useChange } from './use-change';
import { Checkbox } from '@/ui/parts/checkbox';

/** A field on a screen: what it shows and how, and, beneath, the field of the data behind it. */
export function PartFieldSettings({ part }: { part: FieldPart }) {
  const { definition, compiled, mayChange, select, selected } = useBench();
  const change = useChange();
  const data = compiled.tree.need(part.field, 'data-field');
  const others = compiled.handles.handlesOf(data).filter((id) => id !== selected.id);
  const screens = new Map(
    others.flatMap((id) => {
      const screen = compiled.tree.get(id)?.screen;
      return screen && screen.id !== selected.screen?.id ? [[screen.id, { name: screen.name, id }]] : [];
    }),
  );
  return (
    <>
      <FieldChoice field={part.field} />
      <Labelled label="Help text">
        <KeptText
          label="Help text"
          mayBeEmpty
          value={part.help ?? ''}
          disabled={!mayChange}
          onKeep={(help) => change({ help: help || null })}
        />
      </Labelled>
      <Checkbox
        className="mb-2"
        disabled={!mayChange}
        checked={part.wide ?? false}
        onTurn={(on) => change({ wide: on ? true : null })}
      >
        Full width
      </Checkbox>
      <p className="text-quiet">
        Shows the field{' '}
        <button type="button" className="link" onClick={() => select(data.id)}>
          {compiled.tree.entityOf(data.id)?.name}: {data.name}
        </button>{' '}
        of the entity, {typeInWords(definition, data.node)}
        {data.node.required && ', required'}.
        {screens.size > 0 && (
          <>
            {' '}
            Also on{' '}
            {[...screens.values()].map(({ id, name }, n) => (
              <span key={id}>
                {n > 0 && ', '}
                <button type="button" className="link" onClick={() => select(id)}>
                  {name}
                </button>
              </span>
            ))}
            .
          </>
        )}
      </p>
    </>
  );
}
