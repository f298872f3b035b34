import MailComposer from 'nodemailer/lib/mail-composer/index.js';

/** A letter as a mail program opens it, to be looked at and sent by somebody. */
export interface Letter {
  readonly fromName: string;
  readonly to: string;
  readonly subject: string;
  readonly text: string;
  /** BCP 47. */
  readonly language: string;
  readonly at: Date;
  /** An appointment that goes with it, RFC 5545; null for none. */
  readonly calendar: string | null;
}

/**
 * A letter as RFC 5322 with MIME, marked as not sent yet. Nothing is sent: a mail program opens it for whoever sends it.
 * @source RFC 5322, RFC 2045; X-Unsent is what mail programs take a draft by
 */
export const emlOf = (letter: Letter): Promise<Buffer> =>
  new Promise((resolve, reject) => {
    const mail = new MailComposer({
      from: { name: letter.fromName, address: 'no-reply@invalid' },
      to: letter.to,
      subject: letter.subject,
      text: letter.text,
      date: letter.at,
      headers: { 'X-Unsent': '1', 'Content-Language': letter.language },
      ...(letter.calendar === null ? {} : { icalEvent: { method: 'PUBLISH', filename: 'appointment.ics', content: letter.calendar } }),
    });
    mail.compile().build((cause, bytes) => (cause ? reject(cause) : resolve(bytes)));
  });
