import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { describe, expect, it } from 'vitest';
import { uncovered } from '../../src/formats/pdf/fonts';
import { writePaper, type Paper } from '../../src/formats/pdf/paper';
import { en } from '../../src/i18n/messages/en';

const PAPER: Paper = {
  language: 'en',
  title: 'Copy of the contact lens prescription',
  from: 'From: Saltmarsh Eye Care, 2 Quay Street, telephone 0555 0100',
  wearer: 'Łucja Žižková-Gönül, born 6 May 1984, record 0001',
  large: [
    'R −3.25 −1.75 × 20 · Marram Optical Plover 30 · base curve 8.6 · diameter 14.2',
    'L −4.50 · Marram Optical Turnstone 30 · base curve 8.4 · diameter 14.2',
  ],
  lines: ['Examined 6 May 2026.', 'Prescription No. 7, issued 6 May 2026, runs to 6 May 2027.'],
  danger: { title: 'If your eye is red or hurts', text: 'Take the lenses off. Telephone 0555 0199.' },
  written: 'Written 6 May 2026 10:30 by Asha Penhallow',
};

/** The text of a document as a reader that knows nothing of its making finds it (pdfjs-dist). */
async function textOf(pdf: Uint8Array): Promise<{ readonly text: string; readonly pages: number; readonly title: string }> {
  const document = await getDocument({ data: new Uint8Array(pdf), useSystemFonts: false }).promise;
  let text = '';
  for (let n = 1; n <= document.numPages; n++) {
    const content = await (await document.getPage(n)).getTextContent();
    text += content.items.map((item) => ('str' in item ? item.str : '')).join(' ');
  }
  const { info } = await document.getMetadata();
  return { text: text.replace(/\s+/g, ' '), pages: document.numPages, title: String((info as { Title?: string }).Title) };
}

describe('the wearer’s copy as PDF', () => {
  it('holds every word as real text: signs, letters of other languages and all', async () => {
    const made = await writePaper(PAPER);
    if (!made.ok) throw new Error(made.missing);
    const { text, pages, title } = await textOf(made.pdf);
    expect([pages, title]).toEqual([1, PAPER.title]);
    for (const line of [PAPER.title, PAPER.from, PAPER.wearer, ...PAPER.large, ...PAPER.lines, PAPER.danger.title, PAPER.danger.text, PAPER.written])
      expect(text.replace(/\s/g, '')).toContain(line.replace(/\s/g, ''));
  });
  it('a character that no font here has stops it, and is named: it is never written wrong', async () => {
    expect(await writePaper({ ...PAPER, wearer: '李明' })).toEqual({ ok: false, missing: '李明' });
    expect(await writePaper({ ...PAPER, lines: ['≥ 1'] })).toEqual({ ok: false, missing: '≥' });
    expect(uncovered('Łucja −3.25 × 20°')).toBe('');
  });
  it('every word that this paper can have is covered', () => {
    const words = JSON.stringify([en.print, en.raw, en.eyes, en.purposes, en.prescription.add]);
    expect(words.length).toBeGreaterThan(1000);
    const used = ['copy', 'from', 'wearer', 'eyeLine', 'examined', 'purpose', 'signed', 'dangerTitle', 'dangerDo', 'written'] as const;
    expect(uncovered(used.map((key) => en.print[key]).join(' '))).toBe('');
    expect(uncovered(JSON.stringify([en.raw, en.eyes, en.purposes, en.prescription.add]))).toBe('');
  });
  it('the fonts ship with their licence', () => {
    const licence = readFileSync(join(process.cwd(), 'node_modules/@fontsource/atkinson-hyperlegible-next/LICENSE'), 'utf8');
    expect(licence).toMatch(/SIL OPEN FONT LICENSE/i);
  });
});
