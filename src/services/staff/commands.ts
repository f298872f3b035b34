import 'server-only';
import { endSessionsOf } from '../../db/session';
import { endMembership, findStaff, insertMembership, insertPerson, setPasswordHash, updateMembership } from '../../db/staff';
import { err, invalid, notFound, ok, ruleBroken } from '../../lib/outcome';
import { addStaffForm, changeStaffForm, endStaffForm, resetPasswordForm } from '../../schema/staff';
import { hashPassword } from '../../server/password';
import { defineCommand } from '../define';

export const addStaff = defineCommand({
  name: 'addStaff',
  right: 'staff',
  input: addStaffForm,
  about: (_form, out: { personId: string }) => ({ subjectKind: 'person', subjectId: out.personId }),
  prepare: async (_before, form) => ok(await hashPassword(form.password)),
  run: async (context, form, passwordHash) => {
    const personId = context.newId();
    const made = await insertPerson(context.tx, {
      id: personId,
      account: form.account,
      displayName: form.displayName,
      passwordHash,
      at: context.now,
    });
    if (!made) return invalid('account', 'accountTaken', { value: form.account });
    await insertMembership(context.tx, {
      id: context.newId(),
      practiceId: context.caller.practiceId,
      personId,
      title: form.title,
      registerNumber: form.registerNumber,
      address: form.address,
      roles: form.roles,
      at: context.now,
    });
    return ok({ personId });
  },
});

export const changeStaff = defineCommand({
  name: 'changeStaff',
  right: 'staff',
  input: changeStaffForm,
  about: (form) => ({ subjectKind: 'person', subjectId: form.personId }),
  run: async ({ tx, caller }, form) => {
    // Somebody must stay who can give it back.
    if (form.personId === caller.personId && !form.roles.includes('admin')) return invalid('roles', 'cannotEndYourself');
    if (!(await findStaff(tx, caller.practiceId, form.personId))) return notFound('person');
    return (await updateMembership(tx, caller.practiceId, form)) ? ok({ personId: form.personId }) : err({ kind: 'conflict', what: 'person', differs: [] });
  },
});

export const endStaff = defineCommand({
  name: 'endStaff',
  right: 'staff',
  input: endStaffForm,
  about: (form) => ({ subjectKind: 'person', subjectId: form.personId }),
  run: async (context, form) => {
    const { tx, caller, now } = context;
    if (form.personId === caller.personId) return ruleBroken('cannotEndYourself');
    const staff = await findStaff(tx, caller.practiceId, form.personId);
    if (!staff) return notFound('person');
    const done = await endMembership(tx, caller.practiceId, form.personId, form.version, now);
    if (!done) return err({ kind: 'conflict', what: 'person', differs: [] });
    await endSessionsOf(tx, caller.practiceId, form.personId, now);
    return ok({ personId: form.personId });
  },
});

export const resetPassword = defineCommand({
  name: 'resetPassword',
  right: 'staff',
  input: resetPasswordForm,
  about: (form) => ({ subjectKind: 'person', subjectId: form.personId }),
  prepare: async (_before, form) => ok(await hashPassword(form.password)),
  run: async (context, form, passwordHash) => {
    const { tx, caller, now } = context;
    if (!(await findStaff(tx, caller.practiceId, form.personId))) return notFound('person');
    await setPasswordHash(tx, caller.practiceId, form.personId, passwordHash, now);
    await endSessionsOf(tx, caller.practiceId, form.personId, now);
    return ok({ personId: form.personId });
  },
});
