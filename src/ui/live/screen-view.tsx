'use client';

import { useEffect, useMemo, useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import type { ShownButton, ShownField, ShownRows, ShownUnlock } from '@/core/access';
import type { Value } from '@/core/model';
import { ButtonView } from './button-view';
import { ChosenProvider, type Chosen } from './chosen';
import { ClosedView } from './closed-view';
import type { DrawnPart, DrawnScreen, DrawnSection } from './drawn';
import { FieldView } from './field-view';
import { useBeforeSaving } from './before-saving';
import { Ghost } from './ghost';
import { deleting } from './deleting';
import { useConfirm } from '../parts/asking';
import { useHost } from './host';
import { ListView } from './list-view';
import { PeopleView } from './people-view';
import { UnlockedBar } from './unlocked-bar';

export interface DrawnPage {
  readonly address: string;
  readonly screen: DrawnScreen;
  readonly lists: Readonly<Record<string, ShownRows>>;
  readonly version?: string;
  readonly leaveTo?: string;
  readonly unlocked?: readonly ShownUnlock[];
}

type FormValues = Record<string, Value>;

const fieldsOf = (screen: DrawnScreen): ShownField[] =>
  screen.sections.flatMap(({ parts }) => parts.filter((part) => part.kind === 'field'));

/** What the form holds at first: an empty field is an empty text, as inputs have it. */
const formValues = (screen: DrawnScreen): FormValues =>
  Object.fromEntries(
    fieldsOf(screen)
      .filter((field) => field.input)
      .map(({ field, value, input }) => [field, value ?? (input?.type.kind === 'boolean' ? false : '')]),
  );

/** Draws one screen of an application: the same in a release and on the studio's canvas. */
export function ScreenView({ page: sent }: { page: DrawnPage }) {
  const host = useHost();
  // What is written while a save is still coming back stays written.
  const form = useForm<FormValues>({
    values: formValues(sent.screen),
    resetOptions: { keepDirtyValues: true },
    shouldFocusError: true,
  });
  // What was written is newer than the page until that is loaded again.
  const [written, setWritten] = useState<{ readonly over: string | undefined; readonly version: string }>();
  const version = (written?.over === sent.version ? written?.version : sent.version) ?? '';
  const screen = useBeforeSaving(sent.screen, sent.address, version, form, host);
  const page = { ...sent, screen };
  const [message, setMessage] = useState('');
  const [busy, setBusy] = useState(false);
  const [rows, setRows] = useState<Chosen['rows']>(new Map());
  useEffect(() => setMessage(''), [page.address]);
  const chosen = useMemo(
    (): Chosen => ({
      lists: new Set(
        screen.sections
          .flatMap(({ parts }) => parts)
          .flatMap((part) => (part.kind === 'button' && part.effect.do === 'bulk' ? [part.effect.list] : [])),
      ),
      rows,
      choose: (list, some) => setRows((now) => new Map(now).set(list, some)),
    }),
    [screen, rows],
  );

  const confirm = useConfirm();
  const run = async (button: ShownButton): Promise<void> => {
    const { effect } = button;
    if (effect.do === 'open') return host.go(effect.address);
    if (effect.do === 'sign-out') return host.signOut();
    if (effect.do === 'export') {
      const href = host.exportHref(effect.list, exportQuery(page, effect.list));
      return href === undefined
        ? host.tell('In the application this gives a file.')
        : window.location.assign(href);
    }
    if (effect.do === 'set-session') {
      const pressed = await host.press(button.id, screen.binds?.record);
      host.tell(pressed.ok ? host.said.done : pressed.detail);
      return host.refresh();
    }
    if (
      effect.do === 'action' &&
      effect.confirm &&
      host.keeps &&
      !(await confirm({ title: button.name, text: effect.confirm, go: button.name }))
    )
      return;
    if (effect.do === 'delete' && host.keeps && !(await confirm(deleting(button.name)))) return;
    const { binds } = screen;
    if (!binds || busy) return;
    setBusy(true);
    setMessage('');
    form.clearErrors();
    const answer = await write(button, binds.entity, binds.record);
    setBusy(false);
    if (!answer.ok) {
      for (const [field, detail] of Object.entries(answer.fields)) form.setError(field, { message: detail });
      const first = fieldsOf(screen).find(({ field, input }) => input && field in answer.fields);
      if (first) form.setFocus(first.field);
      setMessage(first ? '' : [answer.detail, ...Object.values(answer.fields)].join(' '));
      return;
    }
    if (effect.do === 'delete') {
      host.tell(host.said.deleted);
      if (host.keeps) host.go(page.leaveTo ?? '');
      return;
    }
    // What was saved is what further changes are told apart from, and the version that they are made on.
    form.reset(host.keeps ? form.getValues() : formValues(screen));
    if (host.keeps) setWritten({ over: page.version, version: answer.value.version });
    host.tell(
      effect.do === 'action'
        ? host.said.done
        : binds.record === undefined
          ? answer.value.sent
            ? host.said.sent
            : host.said.added
          : host.said.saved,
    );
    if (binds.record === undefined && host.keeps) host.go(answer.value.address ?? page.leaveTo ?? '');
    else host.refresh();
  };

  const write = async (button: ShownButton, entity: string, record: string | undefined) => {
    const { effect } = button;
    if (effect.do === 'delete') return host.records.remove(entity, record ?? '', version);
    if (effect.do === 'action') return host.records.act(entity, record ?? '', effect.action, version);
    const all = form.getValues();
    const { dirtyFields } = form.formState;
    // What is no longer on the screen, since it closed by what is written, is not saved.
    const shown = new Set(fieldsOf(screen).flatMap(({ field, input }) => (input ? [field] : [])));
    const changed = Object.keys(all).filter(
      (field) => shown.has(field) && (record === undefined || dirtyFields[field]),
    );
    const values = Object.fromEntries(
      changed.map((field) => [field, all[field] === '' ? null : (all[field] ?? null)]),
    );
    return record === undefined
      ? host.records.create(entity, values)
      : host.records.update(entity, record, version, values);
  };

  // Reading it here tells the form to keep it up to date.
  void form.formState.dirtyFields;
  const saves = screen.sections
    .flatMap(({ parts }) => parts)
    .find((part): part is ShownButton => part.kind === 'button' && part.effect.do === 'save' && part.usable);
  return (
    <ChosenProvider value={chosen}>
      <FormProvider {...form}>
        <form
          noValidate
          aria-busy={busy}
          onSubmit={(event) => {
            event.preventDefault();
            if (saves) void run(saves);
          }}
        >
          <h1 className="mb-3 text-xl font-semibold" data-element={screen.id}>
            {screen.heading}
          </h1>
          {screen.faces && (
            <nav aria-label="Faces of this screen" className="mb-3 flex gap-4">
              {screen.faces.map((face) => (
                <button
                  key={face.id}
                  type="button"
                  data-element={face.id}
                  aria-current={face.shown ? 'true' : undefined}
                  className="border-b-2 border-transparent py-1 aria-[current]:border-open aria-[current]:font-semibold"
                  onClick={() => host.go(page.address, `face=${face.id}`)}
                >
                  {face.name}
                </button>
              ))}
            </nav>
          )}
          {message && (
            <p role="alert" className="mb-3 border-l-4 border-ink bg-sheet px-3 py-2">
              {message}
            </p>
          )}
          {page.unlocked && <UnlockedBar unlocked={page.unlocked} />}
          {screen.sections.map((section) => (
            <SectionView key={section.id} section={section} page={page} busy={busy} run={run} />
          ))}
        </form>
      </FormProvider>
    </ChosenProvider>
  );
}

interface Drawing {
  readonly page: DrawnPage;
  readonly busy: boolean;
  readonly run: (button: ShownButton) => Promise<void>;
}

function SectionView({ section, page, busy, run }: Drawing & { section: DrawnSection }) {
  const isButton = (part: DrawnPart): boolean =>
    part.kind === 'button' || (part.kind === 'ghost' && part.of === 'button');
  const record = page.screen.binds?.record;
  const onlyButtons = section.parts.every(isButton);
  const buttons = section.parts.filter(isButton);
  const rest = section.parts.filter((part) => !isButton(part));
  const fields = rest.some((part) => part.kind === 'field' || (part.kind === 'ghost' && part.of === 'field'));
  // Buttons stand before a list, which may be long, and after all else.
  const listed = rest.some((part) => part.kind === 'list');
  const titled = fields && section.name !== page.screen.heading;
  return (
    <section
      data-element={section.id}
      aria-label={section.name}
      className={`mb-4 ${fields ? 'border-t-2 border-ink bg-paper px-4 pt-2 pb-4' : ''}`}
    >
      {titled && <h2 className="mb-2 font-semibold">{section.name}</h2>}
      {onlyButtons && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
      {!onlyButtons && (
        <div className={fields ? 'grid grid-cols-2 gap-x-5 gap-y-3' : 'grid grid-cols-[minmax(0,1fr)] gap-3'}>
          {buttons.length > 0 && listed && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
          {rest.map((part) => (
            <PartView key={part.id} part={part} page={page} />
          ))}
          {buttons.length > 0 && !listed && <Buttons parts={buttons} busy={busy} run={run} record={record} />}
        </div>
      )}
    </section>
  );
}

/** What the export is asked with: the list as it stands on the page. */
function exportQuery({ lists, screen }: DrawnPage, list: string): string {
  const { q = '', filter = '', sort = '' } = lists[list] ?? {};
  const query = new URLSearchParams();
  for (const [key, value] of Object.entries({ q, filter, sort }))
    if (value) query.set(`${list}.${key}`, value);
  if (screen.binds?.record) query.set('record', screen.binds.record);
  return query.toString();
}

function Buttons({
  parts,
  busy,
  run,
  record,
}: {
  parts: readonly DrawnPart[];
  busy: boolean;
  run: Drawing['run'];
  record: string | undefined;
}) {
  return (
    <div className="flex flex-wrap gap-2">
      {parts.map((part) => {
        if (part.kind === 'ghost')
          return (
            <Ghost key={part.id} id={part.id} name={part.name} ghost={part.ghost} className="px-3 py-1" />
          );
        if (part.kind === 'closed')
          return (
            <ClosedView
              key={part.id}
              id={part.id}
              name={part.name}
              closed={part.closed}
              record={record}
              className="px-3 py-1"
            />
          );
        if (part.kind !== 'button') return null;
        return <ButtonView key={part.id} button={part} busy={busy} run={run} record={record} />;
      })}
    </div>
  );
}

function PartView({ part, page }: { part: DrawnPart; page: DrawnPage }) {
  switch (part.kind) {
    case 'field':
      return <FieldView field={part} />;
    case 'text':
      return (
        <p data-element={part.id} className="max-w-prose">
          {part.text}
        </p>
      );
    case 'list':
      return <ListView list={part} rows={page.lists[part.id]} address={page.address} />;
    case 'closed':
      return (
        <div>
          <ClosedView id={part.id} name={part.name} closed={part.closed} record={page.screen.binds?.record} />
        </div>
      );
    case 'people':
      return <PeopleView part={part} />;
    case 'ghost':
      return part.of === 'field' ? (
        <div data-element={part.id}>
          <div className="text-quiet">{part.name}</div>
          <Ghost name={part.name} ghost={part.ghost} className="px-2 py-1 italic">
            {part.ghost === 'not' && 'no value sent'}
          </Ghost>
        </div>
      ) : (
        <Ghost id={part.id} name={part.name} ghost={part.ghost} className="col-span-2 p-4" />
      );
    default:
      return null;
  }
}
