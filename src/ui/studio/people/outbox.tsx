'use client';

import { useState } from 'react';
import { useAsked } from '@/ui/client/queries';
import { send } from '@/ui/client/send';
import { outbox, outboxLink, type OutboxMessage } from '@/contract/studio/people';
import { usePeopleWork } from './use-people-work';
import { Panel } from './parts';

/** What would have been sent by mail. Nothing leaves this machine. */
export function Outbox() {
  const { app } = usePeopleWork();
  const messages = useAsked(outbox, { app }).data?.messages;
  return (
    <Panel label="Outbox">
      <h2 className="mb-1 font-semibold">Outbox</h2>
      <p className="mb-2 text-quiet">
        Emails that would have been sent. This installation does not send email.
      </p>
      <ul>
        {messages?.map((one) => (
          <li key={one.id} className="border-b border-sheet py-1.5">
            <p>
              <span className="font-medium">{one.subject}</span>{' '}
              <span className="text-quiet">to {one.to}</span>
            </p>
            <MessageBody message={one} />
          </li>
        ))}
        {messages?.length === 0 && <li className="text-quiet">The outbox is empty.</li>}
      </ul>
    </Panel>
  );
}

/** A message's text. Its link is a key to the account: it is shown when asked for, which is recorded. */
function MessageBody({ message }: { message: OutboxMessage }) {
  const { app, tell } = usePeopleWork();
  const [link, setLink] = useState<string>();
  const show = async (): Promise<void> => {
    const answer = await send(outboxLink, { app, id: message.id });
    if (answer.ok) setLink(answer.value.link);
    else tell(answer.detail);
  };
  const [before, after = ''] = message.body.split('{link}');
  return (
    <p className="break-words">
      {before}
      {link !== undefined ? (
        <a className="link" href={link}>
          {link}
        </a>
      ) : (
        message.hasLink && (
          <button
            type="button"
            className="link min-h-[24px]"
            aria-label={`Show the link in the message to ${message.to}`}
            onClick={() => void show()}
          >
            Show link (this is recorded)
          </button>
        )
      )}
      {after}
    </p>
  );
}
