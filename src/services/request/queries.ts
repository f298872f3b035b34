import 'server-only';
import type { Compared } from '../../core';
import { listCopyRequests, type CopyRequestRow } from '../../db/copyRequest';
import { listRequests, type RequestRow } from '../../db/request';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { compareNow } from './compare';

/** Requests answered last that are shown. */
const ANSWERED = 20;

export interface RequestShown extends RequestRow {
  /** Beside what is in force now. */
  readonly compared: Compared;
}

/** What sellers ask, each beside what is in force for its wearer. */
export const readRequests = defineQuery({
  name: 'readRequests',
  right: 'clinicalRead',
  input: emptyForm,
  about: () => null,
  run: async (
    context,
  ): Promise<
    Result<{ readonly session: SessionContext; readonly requests: readonly RequestShown[]; readonly copies: readonly CopyRequestRow[]; readonly now: string }>
  > => {
    const rows = await listRequests(context.tx, context.caller.practiceId, ANSWERED);
    const requests: RequestShown[] = [];
    for (const row of rows) requests.push({ ...row, compared: await compareNow(context, row) });
    const copies = await listCopyRequests(context.tx, context.caller.practiceId, context.today, ANSWERED);
    return ok({ session: sessionContextOf(context), requests, copies, now: context.now });
  },
});
