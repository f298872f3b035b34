import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join, normalize } from 'node:path';
import { describe, expect, it } from 'vitest';

/** Every page brings the words that it and its parts ask for: what it forgot would stand there as a key. */
const walk = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) => (e.isDirectory() ? walk(join(folder, e.name)) : [join(folder, e.name)]));
const sources = new Map(
  [...walk('src/features'), ...walk('src/ui'), ...walk('src/i18n')].filter((f) => /(?<!\.test)\.tsx?$/.test(f)).map((f) => [f, readFileSync(f, 'utf8')]),
);

function resolve(from: string, name: string): string | null {
  const base = name.startsWith('@/') ? join('src', name.slice(2)) : name.startsWith('.') ? normalize(join(dirname(from), name)) : null;
  return base === null ? null : (['', '.ts', '.tsx'].map((end) => base + end).find((f) => sources.has(f)) ?? null);
}
/** Files that a page is made of, those that come later too. */
function partsOf(page: string): Set<string> {
  const seen = new Set<string>();
  const waiting = [page];
  for (let file = waiting.pop(); file !== undefined; file = waiting.pop()) {
    if (seen.has(file)) continue;
    seen.add(file);
    const text = sources.get(file) ?? '';
    for (const [, name = ''] of text.matchAll(/(?:from|import\() ?'([^']+)'/g)) {
      const part = resolve(file, name);
      if (part) waiting.push(part);
    }
  }
  return seen;
}
const namespaces = (text: string): string[] => [...text.matchAll(/useTranslations\('(\w+)/g)].map((m) => m[1] ?? '');
const brought = (text: string): string[] => [...text.matchAll(/messages\/en\/(\w+)\.messages\.json/g)].map((m) => m[1] ?? '');
const everywhere = brought(sources.get('src/i18n/MessagesProvider.tsx') ?? '');
const pages = [...sources]
  .filter(([file, text]) => text.includes('withWords({') || (text.includes('withWords(') && file.includes('print/sheets')))
  .map(([file]) => file);

describe('every page brings its words', () => {
  it('there are pages, and words that all of them share', () => {
    expect(pages.length).toBeGreaterThan(16);
    expect(everywhere).toEqual(expect.arrayContaining(['frame', 'problems']));
    expect(existsSync('src/i18n/messages/en/frame.messages.json')).toBe(true);
  });
  const shell = brought(sources.get('src/features/visit/shell/VisitShell.tsx') ?? '');
  it.each(pages)('%s', (page) => {
    const parts = partsOf(page);
    const has = new Set([...everywhere, ...(page.includes('/visit/') ? shell : []), ...[...parts].flatMap((f) => brought(sources.get(f) ?? ''))]);
    // A panel or a desk of the on-eye step stands in the step's words.
    if (page.includes('/onEye/')) for (const name of brought(sources.get('src/features/visit/steps/onEye/OnEyeStep.tsx') ?? '')) has.add(name);
    const asked = [...parts].filter((f) => f.startsWith('src/features')).flatMap((f) => namespaces(sources.get(f) ?? ''));
    expect([...new Set(asked)].filter((name) => !has.has(name))).toEqual([]);
  });
});
