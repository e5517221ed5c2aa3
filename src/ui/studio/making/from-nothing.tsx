'use client';

import { useState } from 'react';
import { send } from '@/ui/client/send';
import { makeApplication } from '@/contract/studio/making';
import { FieldMessage } from '../../parts/fields';
import { CalledFields, useCalled } from './called';
import { CurrencyChoice } from './currency-choice';
import { mannersHere } from './application-settings';
import { Form } from '../../parts/form';

/** An application with nothing in it. */
export function FromNothing() {
  const called = useCalled();
  const [problem, setProblem] = useState('');
  const [currency, setCurrency] = useState('EUR');
  const submit = called.form.handleSubmit(async ({ name, slug }) => {
    setProblem('');
    const manners = { name: name.trim(), currency, ...mannersHere() };
    const answer = await send(makeApplication, { body: { from: 'nothing', slug, manners } });
    if (answer.ok) return window.location.assign(`/studio/${slug}/gates`);
    if (!called.refuse(answer.fields)) setProblem(answer.detail);
  });
  return (
    <Form className="grid gap-4" onSubmit={(event) => void submit(event)}>
      <CalledFields called={called} />
      <CurrencyChoice value={currency} onChange={setCurrency} />
      <FieldMessage text={problem} />
      <span>
        <button type="submit" className="button button-main" disabled={called.form.formState.isSubmitting}>
          Create application
        </button>
      </span>
    </Form>
  );
}
