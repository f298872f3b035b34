import 'server-only';
import { listStaff } from '../../db/staff';
import { ok } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf } from '../sessionContext';

export const readStaff = defineQuery({
  name: 'readStaff',
  right: 'staff',
  input: emptyForm,
  about: () => null,
  run: async (context) => {
    const rows = await listStaff(context.tx, context.caller.practiceId);
    return ok({ session: sessionContextOf(context), staff: rows.map(({ passwordHash: _secret, ...shown }) => shown) });
  },
});
