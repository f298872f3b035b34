import { z } from 'zod';
import { nameText, optionalText, uuid, version } from './fields';

export const password = z.string({ error: 'passwordRequired' }).min(10, 'passwordTooShort').max(200, 'tooLong');
const role = z.enum(['prescriber', 'technician', 'coordinator', 'admin']);
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
    roles: z.array(role).min(1, 'roleRequired'),
    password,
  })
  .refine((form) => !form.roles.includes('prescriber') || form.registerNumber !== null, { message: 'registerRequired', path: ['registerNumber'] });
export const endStaffForm = z.object({ personId: uuid, version });
export const resetPasswordForm = z.object({ personId: uuid, password });
export const signInForm = z.object({
  account: z.string({ error: 'required' }).trim().toLowerCase().min(1, 'required').max(40),
  password: z.string({ error: 'passwordRequired' }).min(1, 'passwordRequired').max(200),
});
