import 'server-only';
import { randomBytes } from 'node:crypto';
import { changeSupplier, findSupplier, insertSupplier, isNameTaken, setSupplierSecret } from '../../db/supplier';
import { err, invalid, notFound, ok, type Result } from '../../lib/outcome';
import { supplierForm, supplierSecretForm } from '../../schema/supplier';
import { defineCommand } from '../define';

/** A new supplier, or one that is changed; what it was is kept. */
export const saveSupplier = defineCommand({
  name: 'saveSupplier',
  right: 'settings',
  input: supplierForm,
  about: (_form, out: { readonly supplierId: string }) => ({ subjectKind: 'supplier', subjectId: out.supplierId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<{ readonly supplierId: string }>> => {
    const { practiceId } = caller;
    const { id, version, cutOff, ...rest } = form;
    const details = { ...rest, cutOffMinute: cutOff };
    const supplierId = id ?? newId();
    if (id === null) return (await insertSupplier(tx, practiceId, supplierId, details)) ? ok({ supplierId }) : invalid('name', 'supplierNameTaken');
    if (!(await findSupplier(tx, practiceId, id))) return notFound('supplier');
    if (await isNameTaken(tx, practiceId, id, form.name)) return invalid('name', 'supplierNameTaken');
    const done = await changeSupplier(tx, practiceId, { id, version, changeId: newId(), at: now, by: caller.personId }, details);
    return done ? ok({ supplierId }) : err({ kind: 'conflict', what: 'supplier', differs: [] });
  },
});

/** Makes what a supplier signs its messages with: shown this once; the one before counts no more. */
export const renewSupplierSecret = defineCommand({
  name: 'renewSupplierSecret',
  right: 'settings',
  input: supplierSecretForm,
  about: (form) => ({ subjectKind: 'supplier', subjectId: form.supplierId }),
  run: async ({ tx, caller, now }, { supplierId }): Promise<Result<{ readonly secret: string }>> => {
    if (!(await findSupplier(tx, caller.practiceId, supplierId))) return notFound('supplier');
    const secret = randomBytes(32).toString('hex');
    await setSupplierSecret(tx, caller.practiceId, supplierId, secret, now);
    return ok({ secret });
  },
});
