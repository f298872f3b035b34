import { readFile } from 'node:fs/promises';
import { createElement } from 'react';
import { renderToStaticMarkup } from 'react-dom/server';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { DANGER_SIGNS, HOME_LINES, type TakeHomePage } from '@/core';
import { homeDocument } from '@/app/homeDocument';
import { HomeSheet } from '@/features/common/takeHome/HomeSheet';
import { HOME_LANGUAGES, homeWords, type HomeLanguage } from '@/features/common/takeHome/words';
import { printPage } from '@/formats/pdf/printed';
import { homePage, homeParts } from '../takeHomeSample';

const peroxide = homeParts().careSystems.map((c) => ({ ...c, current: c.current && { ...c.current, productId: 'petrel' } }));
const PAGES: Readonly<Record<string, TakeHomePage>> = {
  multipurpose: homePage(),
  peroxide: homePage({ careSystems: peroxide }),
  daily: homePage({}, 'daily'),
  // All that a page can have to say.
  most: homePage({
    careSystems: peroxide,
    careProducts: homeParts().careProducts.map((p) => ({ ...p, ownLabel: true })),
    wear: 'overnight',
    answers: [{ question: 'hygieneHands', value: 'longNails' }],
    topics: [],
    lessons: homeParts().lessons.map((l) => ({ ...l, signedAt: null, signOffId: null })),
    settings: { ...homeParts().settings, buildUpTo: 14 },
  }),
};
const plain = (text: string): string =>
  text
    .replaceAll(/[\u2066-\u2069\u200e\u200f]/g, '')
    .replaceAll(/\s+/g, ' ')
    .trim();
const drawn = (page: TakeHomePage, language: HomeLanguage, checked = true): string =>
  plain(
    renderToStaticMarkup(createElement(HomeSheet, { page, language, number: 3, checked }))
      .replaceAll(/<svg.*?<\/svg>/g, ' ')
      .replaceAll(/<[^>]*>/g, ' ')
      .replaceAll('&#x27;', "'")
      .replaceAll('&amp;', '&'),
  );

describe.each(HOME_LANGUAGES)('the page in %s', (language) => {
  const words = homeWords(language);
  it.each(Object.entries(PAGES))('%s: all six danger signs, the number, and just the lines of its topics', (_name, page) => {
    const text = drawn(page, language);
    for (const sign of DANGER_SIGNS) expect(text).toContain(words.t(`danger.signs.${sign}`));
    expect(text).toContain('555-0142');
    for (const { line } of HOME_LINES) {
      const there = page.lines.do.includes(line) || page.lines.dont.includes(line);
      expect(text.includes(plain(words.t(`lines.${line}`))), line).toBe(there);
    }
    for (const topic of page.notSaidBack) expect(text).toContain(words.t(`topics.${topic}`));
    expect(text.includes(words.t('foot.notSaid', { topics: '' }).slice(0, 8))).toBe(page.notSaidBack.length > 0);
    if (page.product) expect(text).toContain(page.product.name);
    else expect(text).toContain(words.t('care.bin'));
  });
  it('carries the danger signs in English where nobody checked its words, and says so', () => {
    const english = homeWords('en');
    const unchecked = drawn(homePage(), language, false);
    for (const sign of DANGER_SIGNS) expect(unchecked).toContain(english.t(`danger.signs.${sign}`));
    expect(unchecked.includes(words.t('unchecked'))).toBe(language !== 'en');
    if (language !== 'en') expect(drawn(homePage(), language, true)).not.toContain(english.t('danger.signs.discharge'));
  });
  it('every drawing has a text of its own', () => {
    const html = renderToStaticMarkup(createElement(HomeSheet, { page: homePage(), language, number: null, checked: true }));
    expect([...html.matchAll(/<svg[^>]*role="img"[^>]*aria-label="([^"]+)"/g)].map((m) => m[1])).toHaveLength(5);
  });
});

/** The text of a PDF, its pages counted, by another reader. */
async function readPdf(pdf: Buffer): Promise<{ readonly pages: number; readonly text: string; readonly tagged: boolean }> {
  const file = await getDocument({ data: new Uint8Array(pdf), verbosity: 0 }).promise;
  const page = await file.getPage(1);
  const content = await page.getTextContent();
  const marks = await file.getMarkInfo();
  await file.destroy();
  return { pages: file.numPages, text: plain(content.items.map((i) => ('str' in i ? i.str : '')).join(' ')), tagged: marks?.Marked === true };
}

describe('as PDF, read back by another reader', () => {
  const css = readFile('src/features/common/takeHome/sheet.css', 'utf8');
  const made = async (page: TakeHomePage, language: HomeLanguage, checked: boolean) => {
    const body = renderToStaticMarkup(createElement(HomeSheet, { page, language, number: 3, checked }));
    const { html, missing } = homeDocument(body, { language, name: page.wearer.name, css: await css });
    expect(missing).toBe('');
    const pdf = await printPage(html);
    if (typeof pdf === 'string') throw new Error(pdf);
    return readPdf(pdf);
  };
  it('prints one at a time, and turns away who comes after eight', async () => {
    const asked = Array.from({ length: 10 }, () => printPage('<!doctype html><p>page</p>'));
    const came = await Promise.all(asked);
    expect(came.filter((pdf) => pdf === 'busy')).toHaveLength(2);
    expect(came.filter((pdf) => typeof pdf !== 'string')).toHaveLength(8);
  });
  it.each([
    ['multipurpose', 'en', true],
    ['peroxide', 'en', true],
    ['most', 'en', true],
    ['most', 'es', false],
    ['most', 'ar', false],
    ['daily', 'es', true],
  ] as const)('%s in %s: one side of A4, tagged, with real text', async (name, language, checked) => {
    const page = PAGES[name];
    if (!page) throw new Error(name);
    const { pages, text, tagged } = await made(page, language, checked);
    expect(pages).toBe(1);
    expect(tagged).toBe(true);
    // Digits, powers and names keep their order, whichever way the words run.
    for (const figure of ['555-0142', '−3.00 −1.75 × 30', '−4.25 −1.25 × 170', 'Nessa Quillby', '0417-3']) expect(text).toContain(figure);
    if (page.product) expect(text).toContain(page.product.name);
    if (language !== 'ar') expect(text).toContain(homeWords(language).t('danger.signs.vision'));
    if (!checked) expect(text).toContain('Light hurts the eyes');
  });
});
