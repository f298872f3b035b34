import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { createTranslator } from 'use-intl/core';
import { describe, expect, it } from 'vitest';
import { en as messages } from '../../src/i18n/messages/en';
import { CARE_TOPICS, ROLES } from '../../src/core';

const filesOf = (folder: string): string[] =>
  readdirSync(folder, { withFileTypes: true }).flatMap((e) =>
    e.isDirectory() ? filesOf(join(folder, e.name)) : /(?<!\.test)\.tsx?$/.test(e.name) ? [join(folder, e.name)] : [],
  );
const source = (folder: string): string =>
  filesOf(join(process.cwd(), folder))
    .map((f) => readFileSync(f, 'utf8'))
    .join('\n');
const found = (text: string, pattern: RegExp): string[] => [...new Set([...text.matchAll(pattern)].map((m) => m[1] ?? ''))].sort();

const services = source('src/services');
const schema = source('src/schema');
const problems = Object.keys(messages.problems);

describe('every refusal has its words', () => {
  const refusals = [...found(services, /ruleBroken\(\s*'([A-Za-z]+)'/g), ...found(services, /ruleBroken\(due === 'on' \? '([A-Za-z]+)'/g), 'lensAlreadyOn'];
  const fields = found(services, /invalid\((?:\s*\[[^\]]*\]|\s*'[^']*'|\s*`[^`]*`|\s*path),\s*'([A-Za-z]+)'/g);
  const shapes = [
    ...found(schema, /, '([a-z][A-Za-z]+)'\)/g),
    ...found(schema, /message: '([A-Za-z]+)'/g),
    ...found(schema, /error: '([A-Za-z]+)'/g),
    ...found(schema, /dayText\('([A-Za-z]+)'\)/g),
  ];
  it('finds them', () => {
    expect(refusals.length).toBeGreaterThan(12);
    expect(fields.length).toBeGreaterThan(15);
    expect(shapes.length).toBeGreaterThan(12);
  });
  it.each([...new Set([...refusals, ...fields, ...shapes])].filter((code) => code !== 'notAnIdentity'))('%s', (code) => {
    expect(problems).toContain(code);
  });
});

describe('every list the screens walk has its words', () => {
  it('care topics, roles', () => {
    for (const topic of CARE_TOPICS)
      expect(messages.lesson.topic[topic]).toMatchObject({ name: expect.any(String) as string, say: expect.any(String) as string });
    for (const role of ROLES) expect([messages.staff.role[role], messages.staff.roleMay[role]].every(Boolean)).toBe(true);
  });
  it('the danger signs say what to do, and by when', () => {
    expect(messages.lesson.topic.dangerSigns.say).toMatch(/lenses off, not back on, be seen the same day/);
  });
  it('a stuck lens is never pulled; no water means none', () => {
    expect(messages.lesson.topic.stuckLens.name).toMatch(/never pulled/);
    expect(messages.lesson.topic.noWater.name).toMatch(/No water, ever/);
  });
});

describe('messages can be written', () => {
  const flat = (node: unknown, path = ''): [string, string][] =>
    typeof node === 'string' ? [[path, node]] : Object.entries(node as object).flatMap(([k, v]) => flat(v, path ? `${path}.${k}` : k));
  it.each(flat(messages))('%s', (path, text) => {
    const values = Object.fromEntries([...text.matchAll(/\{(\w+)/g)].map((m) => [m[1] ?? '', /\{\w+, plural/.test(text) ? 2 : 'x']));
    const complaints: string[] = [];
    const t = createTranslator({ locale: 'en', messages, onError: (error) => complaints.push(error.message) });
    t(path as 'eyes.sitsTrue', values as never);
    expect(complaints).toEqual([]);
  });
});
