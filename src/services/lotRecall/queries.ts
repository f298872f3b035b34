import 'server-only';
import { recallOrder, type LotRecall, type RecalledWearer } from '../../core';
import { listFamilyNames } from '../../db/family';
import { findRecall, listRecalled, listRecalls, recalledHere } from '../../db/lotRecall';
import { notFound, ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { recallPageForm } from '../../schema/lotRecall';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Every lot that was called back. */
export const readRecalls = defineQuery({
  name: 'readRecalls',
  right: 'handOver',
  input: emptyForm,
  about: () => null,
  run: async (
    context,
  ): Promise<
    Result<{
      readonly session: SessionContext;
      readonly recalls: readonly LotRecall[];
      readonly families: readonly { readonly code: string; readonly name: string }[];
    }>
  > => {
    const { tx, caller } = context;
    const recalls = await listRecalls(tx, caller.practiceId);
    return ok({ session: sessionContextOf(context), recalls, families: await listFamilyNames(tx, caller.practiceId) });
  },
});

/** Who had lenses of a lot, and what of it lies here. */
export interface RecallPage {
  readonly session: SessionContext;
  readonly recall: LotRecall;
  /** Who is to be called first at the top. */
  readonly wearers: readonly RecalledWearer[];
  readonly here: Awaited<ReturnType<typeof recalledHere>>;
}

export const readRecall = defineQuery({
  name: 'readRecall',
  right: 'handOver',
  input: recallPageForm,
  about: (form) => ({ subjectKind: 'lotRecall', subjectId: form.recallId }),
  run: async (context, { recallId }): Promise<Result<RecallPage>> => {
    const { tx, caller } = context;
    const recall = await findRecall(tx, caller.practiceId, recallId);
    if (!recall) return notFound('lotRecall');
    const wearers = await listRecalled(tx, caller.practiceId, recall);
    return ok({ session: sessionContextOf(context), recall, wearers: [...wearers].sort(recallOrder), here: await recalledHere(tx, caller.practiceId, recall) });
  },
});
