import { z } from 'zod';
import { nameText, optionalText, uuid, version } from './fields';

export const password = z.string({ error: 'passwordRequired' }).min(10, 'passwordTooShort').max(200, 'tooLong');
const role = z.enum(['prescriber', 'technician', 'coordinator', 'admin']);
/** Whoever signs is on a register. */
const REGISTERED = (form: { readonly roles: readonly string[]; readonly registerNumber: string | null }): boolean =>
  !form.roles.includes('prescriber') || form.registerNumber !== null;
const NOT_REGISTERED = { message: 'registerRequired', path: ['registerNumber'] };

export const addStaffForm = z
  .object({
    account: z
      .string({ error: 'required' })
      .trim()
      .toLowerCase()
      .regex(/^[a-z0-9._-]{2,40}$/, 'accountShape'),
    displayName: nameText(120, 'nameRequired'),
    title: nameText(80, 'required'),
    registerNumber: optionalText(40),
    address: optionalText(200),
    roles: z.array(role).min(1, 'roleRequired'),
    password,
  })
  .refine(REGISTERED, NOT_REGISTERED);
/** What somebody is here: what may change while the account stays. */
export const changeStaffForm = z
  .object({
    personId: uuid,
    version,
    title: nameText(80, 'required'),
    registerNumber: optionalText(40),
    address: optionalText(200),
    roles: z.array(role).min(1, 'roleRequired'),
  })
  .refine(REGISTERED, NOT_REGISTERED);
export const endStaffForm = z.object({ personId: uuid, version });
export const resetPasswordForm = z.object({ personId: uuid, password });
export const signInForm = z.object({
  account: z.string({ error: 'required' }).trim().toLowerCase().min(1, 'required').max(40),
  password: z.string({ error: 'passwordRequired' }).min(1, 'passwordRequired').max(200),
});
