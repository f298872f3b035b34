import { readFileSync } from 'node:fs';
import { parse, TYPE, type MessageFormatElement } from '@formatjs/icu-messageformat-parser';
import ICAL from 'node-ical';
import { describe, expect, it } from 'vitest';
import { CARE_TOPICS, DANGER_SIGNS, HOME_LINES, HOME_STEPS } from '@/core';
import { homeCalendar } from '@/features/common/takeHome/calendar';
import { stepWords } from '@/features/common/takeHome/parts';
import { HOME_LANGUAGES, homeLanguage, homeWords, isChecked, wordsMark } from '@/features/common/takeHome/words';
import { icsOf } from '@/formats/ical/event';
import { lettersMissing } from '@/formats/pdf/pageFonts';
import { homePage, homeParts } from '../takeHomeSample';

type Tree = { readonly [key: string]: string | Tree };
const wordsOf = (language: string): Tree => JSON.parse(readFileSync(`src/i18n/messages/takeHome/${language}.messages.json`, 'utf8')) as Tree;
const flat = (tree: Tree, at = ''): readonly (readonly [string, string])[] =>
  Object.entries(tree).flatMap(([key, value]) => (typeof value === 'string' ? [[`${at}${key}`, value] as const] : flat(value, `${at}${key}.`)));

/** Placeholders of a message, whatever stands around them. */
function placeholders(elements: readonly MessageFormatElement[]): readonly string[] {
  return elements.flatMap((e) => {
    if (e.type === TYPE.argument) return [e.value];
    if (e.type === TYPE.plural || e.type === TYPE.select) return [e.value, ...Object.values(e.options).flatMap((o) => placeholders(o.value))];
    return [];
  });
}
const CATEGORIES: Readonly<Record<string, readonly string[]>> = { en: ['one', 'other'], es: ['one', 'other'], ar: ['one', 'two', 'few', 'many', 'other'] };
function plurals(elements: readonly MessageFormatElement[]): readonly (readonly string[])[] {
  return elements.flatMap((e) => (e.type === TYPE.plural ? [Object.keys(e.options)] : []));
}

describe('the page’s words', () => {
  const english = new Map(flat(wordsOf('en')));
  it.each(HOME_LANGUAGES)('%s has every word, with the same places for figures and names', (language) => {
    const own = new Map(flat(wordsOf(language)));
    expect([...own.keys()].sort()).toEqual([...english.keys()].sort());
    for (const [key, text] of own) {
      const of = (words: string) => [...new Set(placeholders(parse(words)))].sort();
      expect(of(text), `${language} ${key}`).toEqual(of(english.get(key) ?? ''));
      expect(text.trim(), key).not.toBe('');
    }
  });
  it.each(HOME_LANGUAGES)('%s says every plural it has, and no figure of its own', (language) => {
    for (const [key, text] of flat(wordsOf(language))) {
      for (const options of plurals(parse(text))) expect(options, `${language} ${key}`).toEqual(expect.arrayContaining([...(CATEGORIES[language] ?? [])]));
      // Figures come from data: none stands in the words.
      expect(text, `${language} ${key}`).not.toMatch(/[0-9٠-٩]/);
    }
  });
  it('has a word for every line, step, sign and topic of the core', () => {
    for (const { line } of HOME_LINES) expect(english.has(`lines.${line}`), line).toBe(true);
    for (const [step] of HOME_STEPS) expect(english.has(`steps.${step}`), step).toBe(true);
    for (const sign of DANGER_SIGNS) expect(english.has(`danger.signs.${sign}`), sign).toBe(true);
    for (const topic of CARE_TOPICS) expect(english.has(`topics.${topic}`), topic).toBe(true);
  });
  it.each(HOME_LANGUAGES)('%s: every letter is in a font that comes along', (language) => {
    expect(
      lettersMissing(
        flat(wordsOf(language))
          .map(([, text]) => text)
          .join(''),
      ),
    ).toBe('');
  });
  it('a letter that no font has is found', () => {
    expect(lettersMissing('Łucja نور 李')).toBe('李');
  });
  it('the language of a wearer’s page; one that is not there is English', () => {
    expect(['es-MX', 'ar', 'ar-EG', 'pl', ''].map(homeLanguage)).toEqual(['es', 'ar', 'ar', 'en', 'en']);
  });
  it('checked are these very words: a changed word has another mark', () => {
    expect(isChecked('en', [])).toBe(true);
    expect(isChecked('es', [])).toBe(false);
    expect(isChecked('es', [{ language: 'es', words: wordsMark('es') }])).toBe(true);
    expect(isChecked('es', [{ language: 'es', words: wordsMark('ar') }])).toBe(false);
    expect(isChecked('ar', [{ language: 'es', words: wordsMark('es') }])).toBe(false);
  });
});

describe('steps say the product’s own figures', () => {
  const peroxide = homeParts().careSystems.map((c) => ({ ...c, current: c.current && { ...c.current, productId: 'petrel' } }));
  it.each(HOME_LANGUAGES)('%s', (language) => {
    const words = homeWords(language);
    expect(stepWords('soak', homePage(), words)).toMatch(/Tern Multi/);
    expect(stepWords('soak', homePage(), words)).toMatch(/\b6\b/);
    const six15 = stepWords('peroxide', homePage({ careSystems: peroxide }), words);
    expect(six15).toMatch(/Petrel Peroxide/);
    expect(six15).toMatch(/\b6\b.*\b15\b/);
    expect(stepWords('rub', homePage(), words)).toMatch(/\b10\b/);
    expect(stepWords('rinse', homePage(), words)).toMatch(/\b5\b/);
  });
  it('Arabic counts as Arabic does', () => {
    const { span } = homeWords('ar');
    expect([60, 120, 240, 660].map(span)).toEqual(['ساعة واحدة', 'ساعتان', '4 ساعات', '11 ساعة']);
    expect([30, 45].map(homeWords('en').span)).toEqual(['30 min', '45 min']);
  });
});

describe('the calendar, read by another reader', () => {
  // The appointment is across the autumn change of clocks: 9:20 in New York is 14:20 UTC, before and after it is not the same.
  const page = homePage();
  const at = { visitId: 'v', writtenAt: '2026-11-24T15:00:00.000Z' };
  it.each(HOME_LANGUAGES)('%s: build-up, last days and the check on their days', (language) => {
    const read = Object.values(ICAL.sync.parseICS(icsOf(...homeCalendar(page, language, at)))).flatMap((e) => (e?.type === 'VEVENT' ? [e] : []));
    const days = read.filter((e) => e.datetype === 'date').map((e) => `${e.start.getFullYear()}-${e.start.getMonth() + 1}-${e.start.getDate()}`);
    expect(days).toEqual(['2026-11-25', '2026-11-26', '2026-11-27', '2026-11-28', '2026-12-24', '2027-2-23', '2027-2-21']);
    const check = read.find((e) => e.datetype !== 'date');
    expect(check?.start.toISOString()).toBe('2026-12-01T14:20:00.000Z');
    expect(check?.end?.toISOString()).toBe('2026-12-01T14:40:00.000Z');
    const { t } = homeWords(language);
    expect(read.map((e) => e.summary)).toContain(t('calendar.hours', { hours: 4 }));
    expect(read.map((e) => e.summary)).toContain(t('calendar.bottle', { product: 'Tern Multi' }));
    expect(read.every((e) => JSON.stringify(e.description).includes('555-014'))).toBe(true);
  });
  it('given once more it names its entries alike, so that a calendar replaces them', () => {
    const uids = (writtenAt: string) => homeCalendar(page, 'en', { ...at, writtenAt }).map((e) => e.uid);
    expect(uids('2026-11-25T10:00:00.000Z')).toEqual(uids(at.writtenAt));
    expect(new Set(uids(at.writtenAt)).size).toBe(8);
  });
});
