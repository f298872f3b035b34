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
const namespaces = (text: string): string[] => [...text.matchAll(/useTranslations\('(\w+)/g)].map((m) => m[1] ?? '');
const brought = (text: string): string[] => [...text.matchAll(/messages\/en\/(\w+)\.messages\.json/g)].map((m) => m[1] ?? '');
const everywhere = brought(sources.get('src/i18n/MessagesProvider.tsx') ?? '');
/** Files that a file is made of, those that come later too. */
const partsOf = (file: string): string[] =>
  [...(sources.get(file) ?? '').matchAll(/(?:from|import\() ?'([^']+)'/g)].flatMap(([, name = '']) => resolve(file, name) ?? []);
const bringing = [...sources].filter(([, text]) => /withWords\(/.test(text) && !text.includes('export function withWords')).map(([file]) => file);
const inside = new Set([...sources.keys()].flatMap(partsOf));
/** What stands in no other part: pages. */
const pages = bringing.filter((file) => !inside.has(file) || file.includes('/print/sheets'));

/** Words that a file and its parts ask for, and that nothing around them brings. */
function missing(file: string, around: ReadonlySet<string>, seen: Set<string>): string[] {
  const has = new Set([...around, ...brought(sources.get(file) ?? '')]);
  const at = `${file} ${[...has].sort().join()}`;
  if (seen.has(at)) return [];
  seen.add(at);
  const lacks = file.startsWith('src/features') ? namespaces(sources.get(file) ?? '').filter((name) => !has.has(name)) : [];
  return [...lacks.map((name) => `${name} in ${file}`), ...partsOf(file).flatMap((part) => missing(part, has, seen))];
}

describe('every page brings its words', () => {
  it('there are pages, parts that bring their own, and words that all of them share', () => {
    expect(pages.length).toBeGreaterThan(15);
    expect(bringing.length).toBeGreaterThan(pages.length);
    expect(everywhere).toEqual(expect.arrayContaining(['frame', 'problems']));
    expect(existsSync('src/i18n/messages/en/frame.messages.json')).toBe(true);
  });
  const shell = brought(sources.get('src/features/visit/shell/VisitShell.tsx') ?? '');
  it.each(pages)('%s', (page) => {
    expect(missing(page, new Set([...everywhere, ...(page.includes('/visit/') ? shell : [])]), new Set())).toEqual([]);
  });
  it('a word that nothing brings is found', () => {
    expect(missing('src/features/visit/steps/supply/SupplyStep.tsx', new Set(everywhere), new Set())).not.toEqual([]);
  });
  it('no key of a message is forced by a cast: keys from data are asked for in one place', () => {
    const forced = [...sources].filter(([, text]) => /\$\{[^}]* as '|\w\([\w.]+ as '\w+'\)/.test(text)).map(([file]) => file);
    expect(sources.size).toBeGreaterThan(150);
    expect(forced).toEqual([]);
  });
});
