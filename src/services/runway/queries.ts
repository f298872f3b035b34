import 'server-only';
import { dueWindow, lapsedWindow } from '../../core';
import { countDue, listDue, type DueWearer } from '../../db/eyeRunway';
import { ok, type Result } from '../../lib/outcome';
import { dueForm } from '../../schema/reorder';
import { boundsOf } from '../appointment/moments';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Wearers on a page of the list, and how far their number is counted. */
const PAGE = 40;
const COUNTED = 1000;

/** A page of those whose lenses run low. */
export interface DuePage {
  readonly session: SessionContext;
  readonly wearers: readonly DueWearer[];
  readonly more: boolean;
  /** How many there are at all, counted to a thousand. */
  readonly count: number;
  readonly lapsed: boolean;
}

export const readDue = defineQuery({
  name: 'readDue',
  right: 'orders',
  input: dueForm,
  about: () => null,
  run: async (context, { after, lapsed }): Promise<Result<DuePage>> => {
    const { tx, caller, today, practice } = context;
    const window = lapsed ? lapsedWindow(today) : dueWindow(today);
    const order = lapsed ? 'last' : 'first';
    const found = await listDue(tx, caller.practiceId, { ...window, after, order, most: PAGE + 1, now: boundsOf(today, practice.timeZone).from });
    const count = await countDue(tx, caller.practiceId, { ...window, most: COUNTED });
    return ok({ session: sessionContextOf(context), wearers: found.slice(0, PAGE), more: found.length > PAGE, count, lapsed });
  },
});
