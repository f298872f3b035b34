import PostalMime from 'postal-mime';
import ical from 'node-ical';
import { describe, expect, it } from 'vitest';
import { icsOf } from '../ical/event';
import { emlOf } from './eml';

const letter = {
  fromName: 'Saltmarsh Eye Care',
  to: 'nessa@quillby.example',
  subject: 'Su cita del jueves, 26 de noviembre: ¿viene?',
  text: 'Hola, Nessa:\n\ntiene una cita.\n\nLlámenos.',
  language: 'es',
  at: new Date('2026-11-24T15:00:00Z'),
  calendar: null,
};
const event = {
  uid: 'a1@keen-fit',
  startsAt: '2027-03-14T15:30:00.000Z',
  minutes: 40,
  summary: 'Saltmarsh Eye Care',
  description: '555 0100; ask, for Renny',
  location: '4 Quay Street, Saltmarsh',
  writtenAt: '2026-11-24T15:00:00.000Z',
};

describe('a letter', () => {
  it('is read by another program as it was meant, and is no mail that was sent', async () => {
    const read = await PostalMime.parse(await emlOf(letter));
    expect(read).toMatchObject({
      subject: letter.subject,
      from: { name: 'Saltmarsh Eye Care' },
      to: [{ address: 'nessa@quillby.example' }],
      date: '2026-11-24T15:00:00.000Z',
    });
    expect(read.text?.trim()).toBe(letter.text);
    expect(read.headers).toContainEqual(expect.objectContaining({ key: 'x-unsent', value: '1' }));
  });
  it('cannot be made to say more by what stands in it', async () => {
    const read = await PostalMime.parse(await emlOf({ ...letter, to: 'a@b.example\r\nBcc: all@b.example', subject: 'x\r\nBcc: all@b.example' }));
    expect(read.bcc ?? []).toEqual([]);
  });
  it('carries the appointment', async () => {
    const read = await PostalMime.parse(await emlOf({ ...letter, calendar: icsOf(event) }));
    expect(read.attachments.some((a) => a.mimeType.startsWith('text/calendar') || a.mimeType.startsWith('application/ics'))).toBe(true);
  });
});

describe('an appointment in a calendar', () => {
  it('stands at its moment whatever the zone of whoever opens it, on the day the clocks change', () => {
    const [read] = Object.values(ical.sync.parseICS(icsOf(event))).filter((c) => c?.type === 'VEVENT');
    if (read?.type !== 'VEVENT') throw new Error('no event');
    expect([read.start.toISOString(), read.end?.toISOString()]).toEqual(['2027-03-14T15:30:00.000Z', '2027-03-14T16:10:00.000Z']);
    expect([read.uid, read.location, read.description]).toEqual(['a1@keen-fit', event.location, event.description]);
    expect(icsOf(event)).toMatch(/\r\n/);
  });
});
