import 'server-only';
import { claimMessage, noteMessageFailure, recordMessageDone, type MessageRow } from '../db/message';
import type { Sql } from '../db/client';
import type { Clock } from '../lib/clock';
import { deliverOne, type Delivered } from './deliver';

/** Who carries messages: told the message's identity, so that one that comes twice is carried once. */
export type Carrier = (message: MessageRow) => Promise<Delivered<null>>;

/** Sends one message of the outbox that is due. @returns false when none was due */
export const sendOne = (deps: { readonly sql: Sql; readonly clock: Clock }, carry: Carrier): Promise<boolean> =>
  deliverOne<MessageRow, null>(deps, {
    claim: claimMessage,
    bring: carry,
    store: async (tx, { id }, came, at) => {
      if (came.kind === 'silent') await noteMessageFailure(tx, id, came.problem);
      else await recordMessageDone(tx, { id, outcome: came.kind === 'answer' ? 'sent' : 'refused', at });
    },
  });
