import 'server-only';
import { afterQuiet, type MessageData, type PracticeSettings } from '../../core';
import { writeMessage, type Written } from '../../db/outbox';
import type { Context } from '../define';

/** From when on something written now may go: not in the hours in which the practice writes to nobody. */
export const writtenAt = (at: string, by: string | null, settings: PracticeSettings, timeZone: string): Written => ({
  at,
  by,
  dueAt: afterQuiet(at, { from: settings.messagesFrom, until: settings.messagesUntil }, timeZone),
});

/** Writes a message to a wearer into the outbox, in the transaction of what it tells of. */
export const tellWearer = ({ tx, caller, now, settings, practice }: Context, wearerId: string, data: MessageData, about: string): Promise<boolean> =>
  writeMessage(tx, caller.practiceId, wearerId, data, about, writtenAt(now, caller.personId, settings, practice.timeZone));
