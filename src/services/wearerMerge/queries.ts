import 'server-only';
import { listMergeRecords, listMerges, type MergeRecord, type MergeRow } from '../../db/wearerMerge';
import { invalid, ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { mergePairForm } from '../../schema/wearerMerge';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Two records side by side, before they are made one. */
export const compareWearers = defineQuery({
  name: 'compareWearers',
  right: 'merge',
  input: mergePairForm,
  about: () => null,
  run: async (context, form): Promise<Result<{ readonly keep: MergeRecord; readonly other: MergeRecord }>> => {
    if (form.keep === form.other) return invalid('other', 'mergeSame');
    const found = await listMergeRecords(context.tx, context.caller.practiceId, [form.keep, form.other]);
    const [keep, other] = [form.keep, form.other].map((number) => found.find((r) => r.recordNumber === number));
    if (!keep) return invalid('keep', 'recordUnknown', { record: form.keep });
    if (!other) return invalid('other', 'recordUnknown', { record: form.other });
    for (const [path, record] of Object.entries({ keep, other }))
      if (record.mergedInto !== null) return invalid(path, 'mergedAlready', { record: record.recordNumber, into: record.mergedInto });
    return ok({ keep, other });
  },
});

/** What was merged in this practice. */
export const readMerges = defineQuery({
  name: 'readMerges',
  right: 'merge',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<{ readonly session: SessionContext; readonly merges: readonly MergeRow[] }>> =>
    ok({ session: sessionContextOf(context), merges: await listMerges(context.tx, context.caller.practiceId) }),
});
