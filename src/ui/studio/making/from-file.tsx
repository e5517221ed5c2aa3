'use client';

import { useState } from 'react';
import { send } from '@/ui/client/send';
import { makeApplication } from '@/contract/studio/making';
import { FieldMessage } from '../../parts/fields';
import { CalledFields, useCalled } from './called';
import { Form } from '../../parts/form';
import { FileField } from '../../parts/file-field';

/** An application from a definition file. */
export function FromFile() {
  const called = useCalled();
  const [definition, setDefinition] = useState<object>();
  const [problem, setProblem] = useState('');
  const read = async (file: File): Promise<void> => {
    setProblem('');
    setDefinition(undefined);
    try {
      const found = JSON.parse(await file.text()) as { name?: unknown } | null;
      setDefinition(found ?? {});
      if (typeof found?.name === 'string') called.suggest(found.name);
    } catch {
      setProblem(`${file.name} is not a JSON file. Choose a definition file exported from Zinc Gate.`);
    }
  };
  const submit = called.form.handleSubmit(async ({ name, slug }) => {
    setProblem('');
    const answer = await send(makeApplication, {
      body: { from: 'file', slug, name: name.trim(), definition: definition ?? {} },
    });
    if (answer.ok) return window.location.assign(`/studio/${slug}/gates`);
    if (!called.refuse(answer.fields)) setProblem(answer.detail);
  });
  return (
    <Form className="grid gap-4" onSubmit={(event) => void submit(event)}>
      <FileField
        label="Definition file (JSON)"
        accept=".json,application/json"
        onFiles={([file]) => file && void read(file)}
      />
      <CalledFields called={called} />
      <FieldMessage text={problem} />
      <span>
        <button
          type="submit"
          className="button button-main"
          disabled={called.form.formState.isSubmitting || definition === undefined}
        >
          Create application
        </button>
      </span>
    </Form>
  );
}
