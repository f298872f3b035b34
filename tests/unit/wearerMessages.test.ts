import { describe, expect, it } from 'vitest';
import { MESSAGE_KINDS, type MessageData } from '../../src/core';
import { messageWords, WEARER_LANGUAGES } from '../../src/features/common/wearerMessage';

const from = { name: 'Saltmarsh Eye Care', telephone: '555 0100', emergencyTelephone: '555 0190', timeZone: 'America/New_York' };
const DATA: Readonly<Record<(typeof MESSAGE_KINDS)[number], MessageData>> = {
  reorderDue: { kind: 'reorderDue', runOut: '2026-12-10', eyes: ['right'] },
  boxesHere: { kind: 'boxesHere', order: 87 },
  appointment: { kind: 'appointment', appointmentId: 'a', startsAt: '2026-11-26T15:30:00.000Z', minutes: 30, visit: 'longFollowUp' },
  parcelAsked: { kind: 'parcelAsked', order: 88 },
  lotRecalled: { kind: 'lotRecalled', lot: 'B77' },
  firstDays: { kind: 'firstDays', day: 3 },
};
const words = (kind: (typeof MESSAGE_KINDS)[number], language: string) => messageWords({ data: DATA[kind], language, wearerName: 'Nessa Quillby' }, from);

describe('what wearers are written', () => {
  it.each(WEARER_LANGUAGES.flatMap((language) => MESSAGE_KINDS.map((kind) => [language, kind] as const)))(
    '%s %s: whole, with the number to call at once',
    (language, kind) => {
      const { subject, text } = words(kind, language);
      expect(text).toContain('Nessa Quillby');
      expect(text).toContain('555 0190');
      expect(text).toContain('Saltmarsh Eye Care');
      expect(`${subject}${text}`).not.toMatch(/[{}]|wearer\.|undefined|null/);
    },
  );
  it('says day, time, order and lot in the reader’s language', () => {
    expect(words('appointment', 'en').text).toContain('Thursday, November 26, 2026 at 10:30');
    expect(words('appointment', 'es').text).toContain('jueves, 26 de noviembre de 2026');
    expect(words('reorderDue', 'es-MX').text).toContain('10 de diciembre de 2026');
    expect(words('boxesHere', 'en').text).toContain('order 87');
    expect(words('lotRecalled', 'es').text).toContain('lote B77');
    expect(words('firstDays', 'en').text).toContain('for three days');
    expect(words('firstDays', 'es').text).toContain('hace tres días');
    // A language that there are no words for: the practice's own.
    expect(words('boxesHere', 'tlh').language).toBe('en');
  });
  it('names no power and no illness', () => {
    for (const kind of MESSAGE_KINDS) expect(words(kind, 'en').text).not.toMatch(/−|dioptr|keratitis|infection/i);
  });
});
