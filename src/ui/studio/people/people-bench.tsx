'use client';

import { useMemo, useState } from 'react';
import type { Standing } from '@/core/edit/history';
import { difference } from '@/core/edit/difference';
import type { Definition } from '@/core/model/definition';
import { Toasts, useTell } from '../../parts/toasts';
import { SavedState, UndoRedo, useDraft } from '../draft-tools';
import { carry } from '../carry';
import { noteAdding } from './just-added';
import { StudioTop } from '../studio-frame';
import { PeopleProvider, type PeopleWork } from './context';
import { ConditionsPart, GroupsPart } from './conditions-part';
import { FactsPart } from './facts-part';
import { JoiningPart } from './joining-part';
import { PeoplePart, type FoundPeople } from './people-part';
import { PrivilegesPart } from './privileges-part';
import { RolesPart } from './roles-part';
import { UnitsPart } from './units-part';

interface Props {
  readonly slug: string;
  readonly applications: readonly { readonly slug: string; readonly name: string }[];
  readonly builder: string;
  readonly mayChange: boolean;
  readonly mayManage: boolean;
  readonly owns: boolean;
  readonly definition: Definition;
  readonly revision: number;
  readonly standing: Standing;
  readonly released: { readonly number: number; readonly definition: Definition } | undefined;
  readonly first: FoundPeople;
  readonly part: string;
}

const PARTS = [
  ['people', 'People'],
  ['roles', 'Roles'],
  ['privileges', 'Privileges'],
  ['units', 'Units'],
  ['groups', 'Groups'],
  ['conditions', 'Named conditions'],
  ['facts', 'What is known'],
  ['joining', 'Joining and starting'],
] as const;

/** The people bench: who there is, and what roles, privileges, units and groups they can have. */
export function PeopleBench(props: Props) {
  return (
    <Toasts>
      <Inside {...props} />
    </Toasts>
  );
}

function Inside(props: Props) {
  const { slug, mayChange, mayManage, owns, released } = props;
  const api = `/studio/api/applications/${slug}`;
  const tell = useTell();
  const { store, draft } = useDraft(`${api}/draft`, props, mayChange, tell);
  const { definition } = draft;
  const [part, setPart] = useState(props.part);
  const work = useMemo(
    (): PeopleWork => ({
      definition,
      api,
      mayChange,
      mayManage,
      owns,
      tell,
      apply: (edit) => {
        noteAdding(edit);
        store.apply(edit);
      },
    }),
    [definition, api, mayChange, mayManage, owns, tell, store],
  );
  const waiting = useMemo(
    () => (released ? difference(released.definition, definition).length : 1),
    [released, definition],
  );
  const show = (next: string): void => {
    setPart(next);
    window.history.replaceState(null, '', `?part=${next}`);
    carry(slug, { part: next });
  };
  return (
    <PeopleProvider value={work}>
      <div className="grid h-screen min-w-[1000px] grid-cols-[190px_minmax(0,1fr)_0] grid-rows-[46px_minmax(0,1fr)]">
        <StudioTop
          slug={slug}
          name={definition.name}
          applications={props.applications}
          builder={props.builder}
          bench="people"
          waiting={waiting}
        >
          <SavedState draft={draft} waiting={waiting} released={released?.number} mayChange={mayChange} />
          {mayChange && <UndoRedo store={store} draft={draft} />}
        </StudioTop>
        <nav aria-label="Parts of the people bench" className="border-r border-rule bg-paper py-3">
          <ul className="grid gap-0.5">
            {PARTS.map(([key, name]) => (
              <li key={key}>
                <button
                  type="button"
                  aria-current={part === key ? 'page' : undefined}
                  className="block w-full border-l-4 border-transparent px-3 py-1 text-left hover:bg-sheet aria-[current]:border-open aria-[current]:bg-open-pale aria-[current]:font-semibold"
                  onClick={() => show(key)}
                >
                  {name}
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <main data-region="work" tabIndex={-1} className="min-w-0 overflow-auto p-5">
          {part === 'people' && <PeoplePart first={props.first} />}
          {part === 'roles' && <RolesPart />}
          {part === 'privileges' && <PrivilegesPart />}
          {part === 'units' && <UnitsPart />}
          {part === 'groups' && <GroupsPart />}
          {part === 'conditions' && <ConditionsPart />}
          {part === 'facts' && <FactsPart />}
          {part === 'joining' && <JoiningPart />}
        </main>
      </div>
    </PeopleProvider>
  );
}
