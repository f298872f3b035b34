import { z } from 'zod';
import { CONTACT_WAYS } from '../core';
import { optionalText, uuid } from './fields';

/** How a wearer wants to be written to; `none`: not at all. */
export const contactForm = z
  .object({ wearerId: uuid, way: z.enum(CONTACT_WAYS, { error: 'required' }), recipient: optionalText(200) })
  .superRefine((form, ctx) => {
    if (form.way === 'none') return;
    if (form.recipient === null) ctx.addIssue({ code: 'custom', message: 'required', path: ['recipient'] });
    else if (form.way === 'mail' && !z.email().safeParse(form.recipient).success) ctx.addIssue({ code: 'custom', message: 'mailWrong', path: ['recipient'] });
    else if (form.way === 'text' && !/^[+\d][\d ()./-]{3,}$/.test(form.recipient))
      ctx.addIssue({ code: 'custom', message: 'telephoneWrong', path: ['recipient'] });
  })
  .transform((form) => ({ ...form, recipient: form.way === 'none' ? null : form.recipient }));
export const messageForm = z.object({ messageId: uuid });
export const markMessageForm = z.object({ messageId: uuid, sent: z.boolean() });
export const writeReminderForm = z.object({ wearerId: uuid });
export const recallMessagesForm = z.object({ recallId: uuid });
