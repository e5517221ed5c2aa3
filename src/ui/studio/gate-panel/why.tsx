'use client';

import { useMemo } from 'react';
import { explain, type Decided, type Step } from '@/core/access/explain';
import { answerInWords, whatInWords, whoInWords } from '@/core/edit/words';
import { gives } from '@/core/model/gate';
import { isDataDoor } from '@/core/model/tree';
import { useBench } from '../bench';
import { LevelMark } from '../level-mark';

/** Why the viewer in the rail has this level here: what decided, and the way there. */
export function Why() {
  const { compiled, viewer, selected, select, accessOf } = useBench();
  const { answer, steps, decided } = useMemo(
    () => explain(accessOf(viewer), selected.id),
    [accessOf, viewer, selected],
  );
  const deciding = 'gate' in decided ? decided.gate : decided.door;
  const sentence = useDecision(decided, steps);
  return (
    <div>
      <h3 className="mb-1 font-semibold">
        Why {viewer.name} has “{answerInWords(selected.kind, answer)}”
      </h3>
      <p className="mb-2">{sentence}</p>
      <ol className="grid">
        {steps.map(({ element: id, gate, result, nearly }) => {
          const element = compiled.tree.get(id);
          if (!element) return null;
          return (
            <li key={id} className={`flex items-center gap-2 ${id === deciding ? 'font-semibold' : ''}`}>
              <LevelMark answer={result} label={answerInWords(element.kind, result)} />
              <button
                type="button"
                className="min-h-[24px] min-w-0 truncate text-left hover:underline"
                onClick={() => select(id)}
              >
                {isDataDoor(element) ? `Door: ${element.name}` : element.name}
              </button>
              <span className="ml-auto shrink-0 text-[12px] font-normal text-quiet">
                {gate === 'own' ? (nearly.length > 0 ? 'not now, by its condition' : 'own lines') : 'follows'}
              </span>
            </li>
          );
        })}
      </ol>
    </div>
  );
}

/** What decided, in a sentence. */
function useDecision(decided: Decided, steps: readonly Step[]): string {
  const { compiled, definition, personName, viewer } = useBench();
  const nameOf = (id: string): string => compiled.tree.get(id)?.name ?? id;
  switch (decided.by) {
    case 'line': {
      const { line, gate } = decided;
      const kind = compiled.tree.get(gate)?.kind ?? 'section';
      const words = `${whoInWords(line.who, definition, personName)}: ${whatInWords(kind, line.what).toLowerCase()}`;
      return `${nameOf(gate)} has the line “${words}”, which ${gives(line) ? 'gives it' : 'takes it'}.`;
    }
    case 'no-line': {
      const nearly = steps.find((one) => one.element === decided.gate)?.nearly ?? [];
      if (nearly.length > 0)
        return `${nameOf(decided.gate)} has a line for ${viewer.name}, but its condition does not hold${viewer.group === 'role' ? ': of a bare role no attributes are known. Pin a person to see more' : ' now'}.`;
      return `${nameOf(decided.gate)} has lines of its own, and none of them speaks of ${viewer.name}.`;
    }
    case 'handles':
      return `The data follows the screens, and is held open by ${decided.handles.map(nameOf).join(', ')}.`;
    case 'no-handle':
      return `${nameOf(decided.door)} follows the screens, and on no screen open to ${viewer.name} is there what would open it.`;
  }
}
