import 'server-only';
import type { OutboxMessage } from '../../core';
import { findMessage, listMessagesDone, listOutbox } from '../../db/outbox';
import { notFound, ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { messageForm } from '../../schema/outbox';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Messages that a page shows: waiting, and done with last. */
const WAITING = 100;
const DONE = 20;

export interface OutboxPage {
  readonly session: SessionContext;
  readonly waiting: readonly OutboxMessage[];
  readonly done: readonly OutboxMessage[];
}

/** What is written to wearers and waits for somebody to send it. */
export const readOutbox = defineQuery({
  name: 'readOutbox',
  right: 'orders',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<OutboxPage>> => {
    const { tx, caller } = context;
    const waiting = await listOutbox(tx, caller.practiceId, WAITING);
    return ok({ session: sessionContextOf(context), waiting, done: await listMessagesDone(tx, caller.practiceId, DONE) });
  },
});

/** One message, for a file of it. */
export const readMessage = defineQuery({
  name: 'readMessage',
  right: 'orders',
  input: messageForm,
  about: (form) => ({ subjectKind: 'message', subjectId: form.messageId }),
  run: async (context, { messageId }): Promise<Result<{ readonly session: SessionContext; readonly message: OutboxMessage }>> => {
    const message = await findMessage(context.tx, context.caller.practiceId, messageId);
    return message ? ok({ session: sessionContextOf(context), message }) : notFound('message');
  },
});
