'use client';

import { useStateFor } from '../parts/use-state-for';
import { useMemo, useState } from 'react';
import { FormProvider, useForm } from 'react-hook-form';
import type { ShownButton, ShownField } from '@/core/access';
import type { Value } from '@/core/model';
import { ChosenProvider, type Chosen } from './chosen';
import type { DrawnScreen } from './drawn';
import { useBeforeSaving } from './before-saving';
import { deleting } from './deleting';
import { useExporting } from './exporting';
import { useConfirm } from '../parts/asking';
import { useHost } from './host';
import { UnlockedBar } from './unlocked-bar';
import { SectionView, queryOfList } from './section-view';
import { type DrawnPage } from './drawn-page';
import { Form } from '../parts/form';

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
  const screen = useBeforeSaving(sent.screen, sent.address, form, host);
  const page = { ...sent, screen };
  const [message, setMessage] = useStateFor(page.address, '');
  const [busy, setBusy] = useState(false);
  const [rows, setRows] = useState<Chosen['rows']>(new Map());
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
  const exporting = useExporting();
  const run = async (button: ShownButton): Promise<void> => {
    const { effect } = button;
    if (effect.do === 'open') return host.go(effect.address);
    if (effect.do === 'sign-out') return host.signOut();
    if (effect.do === 'export') {
      const href = host.exportHref(effect.list, queryOfList(page, effect.list));
      return href === undefined
        ? host.tell('In the released application, this downloads a file.')
        : exporting.begin(href);
    }
    if (effect.do === 'set-session') {
      const pressed = await host.press(button.id, screen.binds?.record);
      host.tell(pressed.ok ? host.said.done : pressed.detail);
      return host.refresh();
    }
    if (effect.do !== 'action' && effect.do !== 'delete' && effect.do !== 'save') return;
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
    // The record, where its writer still sees it.
    const record = answer.value && 'id' in answer.value ? answer.value : undefined;
    const isNew = binds.record === undefined;
    if (!record && !isNew && host.keeps) {
      host.tell(host.said.done);
      return host.go(page.leaveTo ?? '');
    }
    // What was saved is what further changes are told apart from, and the version that they are made on.
    form.reset(host.keeps ? form.getValues() : formValues(screen));
    if (host.keeps) setWritten({ over: page.version, version: record?.version ?? '' });
    host.tell(
      effect.do === 'action'
        ? host.said.done
        : isNew
          ? host.said[record ? 'added' : 'sent']
          : host.said.saved,
    );
    if (isNew && host.keeps) host.go(record?.address ?? page.leaveTo ?? '');
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
        <Form
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
            <nav aria-label="Layouts of this screen" className="mb-3 flex gap-4">
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
          {exporting.view}
          {page.unlocked && <UnlockedBar unlocked={page.unlocked} />}
          {screen.sections.map((section) => (
            <SectionView key={section.id} section={section} page={page} busy={busy} run={run} />
          ))}
        </Form>
      </FormProvider>
    </ChosenProvider>
  );
}
