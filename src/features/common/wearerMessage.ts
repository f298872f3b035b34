import { createTranslator } from 'use-intl/core';
import { languageFor, type OutboxMessage } from '@/core';
import en from '@/i18n/messages/wearer/en.messages.json';
import es from '@/i18n/messages/wearer/es.messages.json';

const WORDS = { en, es } as const;
/** Languages in which wearers are written to; the first where theirs is none of them. */
export const WEARER_LANGUAGES = ['en', 'es'] as const satisfies readonly (keyof typeof WORDS)[];

/** Who writes. */
export interface Writer {
  readonly name: string;
  readonly telephone: string;
  readonly emergencyTelephone: string;
  readonly timeZone: string;
}
export interface MessageWords {
  readonly language: string;
  readonly subject: string;
  /** Paragraphs, parted by an empty line. */
  readonly text: string;
}

/** A message in the words of its reader's language. */
export function messageWords({ data, language, wearerName }: Pick<OutboxMessage, 'data' | 'language' | 'wearerName'>, from: Writer): MessageWords {
  const locale = languageFor([language], WEARER_LANGUAGES);
  const t = createTranslator({ locale: locale as 'en', messages: { wearer: WORDS[locale] }, namespace: 'wearer' });
  const dayOf = (day: string): string => new Intl.DateTimeFormat(locale, { dateStyle: 'full', timeZone: 'UTC' }).format(new Date(`${day}T12:00:00Z`));
  const at = data.kind === 'appointment' ? new Date(data.startsAt) : null;
  const values = {
    telephone: from.telephone,
    lot: data.kind === 'lotRecalled' ? data.lot : '',
    order: data.kind === 'boxesHere' || data.kind === 'parcelAsked' ? data.order : 0,
    day: at ? new Intl.DateTimeFormat(locale, { dateStyle: 'full', timeZone: from.timeZone }).format(at) : data.kind === 'reorderDue' ? dayOf(data.runOut) : '',
    count: data.kind === 'firstDays' ? data.day : 0,
    time: at ? new Intl.DateTimeFormat(locale, { timeStyle: 'short', timeZone: from.timeZone }).format(at) : '',
  };
  const lines = [
    t('greeting', { name: wearerName }),
    t(`body.${data.kind}`, values),
    t('danger', { emergency: from.emergencyTelephone }),
    t('practice', { practice: from.name, telephone: from.telephone }),
  ];
  return { language: locale, subject: t(`subject.${data.kind}`, values), text: lines.join('\n\n') };
}
