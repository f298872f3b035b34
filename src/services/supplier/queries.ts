import 'server-only';
import type { Supplier } from '../../core';
import { listSuppliers } from '../../db/supplier';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** Who sells lenses to the practice. */
export const readSuppliers = defineQuery({
  name: 'readSuppliers',
  right: 'settings',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<{ readonly session: SessionContext; readonly suppliers: readonly Supplier[] }>> =>
    ok({ session: sessionContextOf(context), suppliers: await listSuppliers(context.tx, context.caller.practiceId) }),
});
