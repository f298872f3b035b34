import 'server-only';
import { listWearers, type WearerListRow } from '../../db/wearer';
import { notFound, ok } from '../../lib/outcome';
import { searchForm, wearerForm } from '../../schema/wearer';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';
import { readWearerFile } from './file';

export const searchWearers = defineQuery({
  name: 'searchWearers',
  right: 'read',
  input: searchForm,
  about: () => null,
  run: async (context, form): Promise<{ ok: true; value: { session: SessionContext; wearers: readonly WearerListRow[] } }> =>
    ok({ session: sessionContextOf(context), wearers: await listWearers(context.tx, context.caller.practiceId, form.search) }),
});

export const readWearer = defineQuery({
  name: 'readWearer',
  right: 'read',
  input: wearerForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form) => {
    const file = await readWearerFile(context, form.wearerId, form.after);
    return file ? ok({ ...file, session: sessionContextOf(context) }) : notFound('wearer');
  },
});
