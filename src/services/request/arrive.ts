import 'server-only';
import { dayIn, DEFAULT_SETTINGS, type IsoInstant } from '../../core';
import type { Tx } from '../../db/client';
import { findPractice, holdPractice } from '../../db/practice';
import { insertRequest } from '../../db/request';
import type { SentRequest } from '../../schema/sentRequest';
import { deadlines } from './deadlines';
import { tellToday } from './tellToday';

/**
 * Keeps a request that a seller's own system sent, with the deadlines that hold now; whose it is, somebody says.
 * @returns false where this one came before
 */
export async function takeSent(tx: Tx, practiceId: string, { outsideRef, ...request }: SentRequest, now: IsoInstant): Promise<boolean> {
  // Two workers make one line on Today.
  await holdPractice(tx, practiceId);
  const practice = await findPractice(tx, practiceId);
  if (!practice) return false;
  const today = dayIn(now, practice.timeZone);
  const made = await insertRequest(tx, {
    id: crypto.randomUUID(),
    practiceId,
    arrived: 'sent',
    outsideRef,
    ...request,
    receivedAt: now,
    ...(await deadlines(tx, { practiceId, timeZone: practice.timeZone, settings: { ...DEFAULT_SETTINGS, ...practice.settings } }, 'answerHours', now, today)),
    recordedAt: now,
    recordedBy: null,
  });
  if (made) await tellToday(tx, { practiceId, at: now, today, by: null });
  return made;
}
