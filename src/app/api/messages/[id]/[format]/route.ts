import { emlOf } from '@/formats/mail/eml';
import { icsOf } from '@/formats/ical/event';
import { messageWords } from '@/features/common/wearerMessage';
import { readMessage } from '@/services/outbox/queries';
import { perform } from '@/services/perform';
import { currentCaller, deps } from '../../../../access';

const file = (body: string | Uint8Array<ArrayBuffer>, type: string, name: string): Response =>
  new Response(body, { headers: { 'content-type': type, 'content-disposition': `attachment; filename="${name}"`, 'cache-control': 'no-store' } });

/** A message as a file for whoever sends it: a letter (eml), an appointment (ics), or its text. */
export async function GET(_request: Request, { params }: { readonly params: Promise<{ readonly id: string; readonly format: string }> }): Promise<Response> {
  const caller = await currentCaller();
  if (!caller.ok) return new Response(null, { status: 401 });
  const { id, format } = await params;
  const read = await perform(readMessage, deps(), caller.value, { messageId: id });
  if (!read.ok) return new Response(null, { status: read.error.kind === 'forbidden' ? 403 : 404 });
  const { session, message } = read.value;
  const { practice } = session;
  // Nothing that a wearer keeps leaves without the number to call at once.
  if (practice.emergencyTelephone === null) return new Response(null, { status: 409 });
  const words = messageWords(message, { ...practice, emergencyTelephone: practice.emergencyTelephone });
  const { data } = message;
  const calendar =
    data.kind === 'appointment'
      ? icsOf({
          uid: `${data.appointmentId}@keen-fit`,
          startsAt: data.startsAt,
          minutes: data.minutes,
          summary: practice.name,
          description: practice.telephone,
          location: practice.address,
          writtenAt: message.writtenAt,
        })
      : null;
  if (format === 'txt') return file(words.text, 'text/plain; charset=utf-8', 'message.txt');
  if (format === 'ics' && calendar !== null) return file(calendar, 'text/calendar; charset=utf-8', 'appointment.ics');
  if (format !== 'eml' || message.way !== 'mail') return new Response(null, { status: 404 });
  const letter = { fromName: practice.name, to: message.recipient, subject: words.subject, text: words.text, language: words.language };
  return file(new Uint8Array(await emlOf({ ...letter, at: new Date(message.writtenAt), calendar })), 'message/rfc822', 'message.eml');
}
