'use client';

import { offersAt } from '@/core/edit';
import { useBench } from '../frame/bench';
import { NewKind } from './new-kind';

/** What stands in the place of the canvas while there is no screen to draw: with what one can begin. */
export function NoScreens({ onAdded }: { onAdded: (id: string) => void }) {
  const { definition, compiled, selected, mayChange, apply } = useBench();
  const area =
    selected.kind === 'area' ? selected : definition.areas[0] && compiled.tree.get(definition.areas[0].id);
  // In an area a screen of no record comes first; without one, an area.
  const [offer] = offersAt(definition, area ?? compiled.tree.root).flatMap(({ offers }) => offers);
  return (
    <section
      aria-label="Canvas"
      data-region="canvas"
      tabIndex={-1}
      className="min-h-0 overflow-auto bg-sheet p-3"
    >
      <div className="mx-auto mt-16 max-w-md bg-paper px-5 py-4">
        <h2 className="text-lg font-semibold">No screens yet</h2>
        <p className="mt-1 text-quiet">
          A screen can show records or stand alone. Screens are grouped in areas. Nobody has access to a new
          screen until you give it.
        </p>
        {mayChange && (
          <div className="mt-4 flex flex-wrap gap-2">
            <NewKind
              onAdded={onAdded}
              trigger={
                <button type="button" className="button button-main">
                  Entity with screens…
                </button>
              }
            />
            {offer && (
              <button
                type="button"
                className="button"
                onClick={() => {
                  const { edit, id } = offer.make();
                  apply(edit);
                  onAdded(id);
                }}
              >
                {area ? `Screen in ${area.name}` : 'Area for screens'}
              </button>
            )}
          </div>
        )}
      </div>
    </section>
  );
}
