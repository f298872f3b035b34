import { createTranslator } from 'use-intl/core';
import { languageFor, type IsoDate, type IsoInstant } from '@/core';
import ar from '@/i18n/messages/takeHome/ar.messages.json';
import en from '@/i18n/messages/takeHome/en.messages.json';
import es from '@/i18n/messages/takeHome/es.messages.json';

const WORDS = { en, es, ar } as const;
/** Languages of the page to take home; the first where a wearer's own is none of them. */
export const HOME_LANGUAGES = ['en', 'es', 'ar'] as const satisfies readonly (keyof typeof WORDS)[];
export type HomeLanguage = (typeof HOME_LANGUAGES)[number];
/** As its readers call it. */
export const HOME_LANGUAGE_NAMES: Readonly<Record<HomeLanguage, string>> = { en: 'English', es: 'Español', ar: 'العربية' };
const DIRECTION: Readonly<Record<HomeLanguage, 'ltr' | 'rtl'>> = { en: 'ltr', es: 'ltr', ar: 'rtl' };
/** Digits stay those of boxes and telephones in every language. */
const LOCALE: Readonly<Record<HomeLanguage, string>> = { en: 'en-GB', es: 'es', ar: 'ar-u-nu-latn' };

/** The language of a wearer's page. @example homeLanguage('es-MX') → 'es' */
export const homeLanguage = (wish: string): HomeLanguage => languageFor([wish], HOME_LANGUAGES);

/**
 * Names the words of a language: when one of them is changed they have another name, and are no longer checked.
 * @source FNV-1a, 32 bit, of the words as the application carries them
 */
export function wordsMark(language: HomeLanguage): string {
  let hash = 0x811c9dc5;
  for (const c of JSON.stringify(WORDS[language])) hash = Math.imul(hash ^ (c.codePointAt(0) ?? 0), 0x01000193) >>> 0;
  return hash.toString(16).padStart(8, '0');
}

/** Did a speaker look at these very words? The application is written in the first language. */
export const isChecked = (language: HomeLanguage, checks: readonly { readonly language: string; readonly words: string }[]): boolean =>
  language === HOME_LANGUAGES[0] || checks.some((c) => c.language === language && c.words === wordsMark(language));

/** Words, days and times of the page in one language. */
export function homeWords(language: HomeLanguage) {
  const locale = LOCALE[language];
  const dir = DIRECTION[language];
  const t = createTranslator({ locale: locale as 'en', messages: { takeHome: WORDS[language] }, namespace: 'takeHome' });
  const dayFormat = (options: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(locale, { timeZone: 'UTC', ...options });
  const [short, full] = [dayFormat({ day: 'numeric', month: 'short' }), dayFormat({ day: 'numeric', month: 'short', year: 'numeric' })];
  const noon = (day: IsoDate): Date => new Date(`${day}T12:00:00Z`);
  /** A number, a telephone or a name in Latin letters keeps its order among words that run from the right. */
  const ltr = (text: string): string => (dir === 'rtl' ? `\u2066${text}\u2069` : text);
  return {
    language,
    dir,
    t,
    ltr,
    shortDay: (day: IsoDate): string => short.format(noon(day)),
    day: (day: IsoDate): string => full.format(noon(day)),
    weekday: (at: IsoInstant, timeZone: string): string =>
      new Intl.DateTimeFormat(locale, { timeZone, weekday: 'short', day: 'numeric', month: 'short' }).format(new Date(at)),
    time: (at: IsoInstant, timeZone: string): string =>
      ltr(new Intl.DateTimeFormat('en-GB', { timeZone, hour: '2-digit', minute: '2-digit', hourCycle: 'h23' }).format(new Date(at))),
    /** @param minutes of a soak */
    span: (minutes: number): string => {
      const [hours, rest] = [Math.floor(minutes / 60), minutes % 60];
      if (hours === 0) return t('time.minutes', { minutes: rest });
      return rest === 0 ? t('time.hours', { hours }) : t('time.both', { hours, minutes: rest });
    },
  };
}
export type HomeWords = ReturnType<typeof homeWords>;
