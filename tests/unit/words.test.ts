import { readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { createTranslator } from 'use-intl/core';
import { describe, expect, it } from 'vitest';
import { en as messages } from '../../src/i18n/messages/en';
import { CARE_FAULTS, CARE_REASONS, CARE_TOPICS, LESSON_PARTS, MISSES, OFF_TECHNIQUES, ON_TECHNIQUES, ROLES, scenariosFor } from '../../src/core';
import { pagesOf } from '../../src/features/common/lesson/pages';
import { SCENE_NAMES } from '../../src/ui/drawing/scene';

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
  it('misses with their coaching, techniques, parts; what is said of care products', () => {
    const { lesson, careSystem } = messages;
    for (const miss of MISSES) expect([lesson.miss[miss], lesson.coach[miss]].every(Boolean), miss).toBe(true);
    for (const technique of [...ON_TECHNIQUES, ...OFF_TECHNIQUES]) expect(lesson.techniques[technique], technique).toBeTruthy();
    for (const part of LESSON_PARTS) expect([lesson.part[part], messages.show.parts[part]].every(Boolean), part).toBe(true);
    for (const fault of CARE_FAULTS) expect([careSystem.faults[fault], careSystem.meets[fault], careSystem.short[fault]].every(Boolean), fault).toBe(true);
    for (const reason of CARE_REASONS) expect(careSystem.for[reason], reason).toBeTruthy();
  });
  it('every drawing has a title, three lines at most, and says what it shows; every page of a lesson is one of them', () => {
    for (const name of SCENE_NAMES) {
      const { title, lines, alt } = messages.scenes[name];
      expect([title, alt].every(Boolean), name).toBe(true);
      expect(Object.keys(lines), name).toEqual(['1', '2', '3'].slice(0, Object.keys(lines).length));
    }
    expect(Object.keys(messages.scenes).sort()).toEqual([...SCENE_NAMES].sort());
    const shown = new Set<string>();
    for (const on of ON_TECHNIQUES)
      for (const off of OFF_TECHNIQUES)
        for (const [singleUse, peroxide] of [
          [true, false],
          [false, false],
          [false, true],
        ] as const)
          for (const part of LESSON_PARTS) {
            const pages = pagesOf(part, { on, off, singleUse, peroxide });
            expect(pages.length, part).toBeGreaterThan(0);
            expect(new Set(pages).size, part).toBe(pages.length);
            for (const page of pages) shown.add(page);
          }
    // Those at the lamp and of the exercise, and what is shown only where something went wrong, have places of their own.
    expect(SCENE_NAMES.filter((name) => !shown.has(name)).sort()).toEqual([
      'foldedBetween',
      'markOfLens',
      'placeForSomebody',
      'rollFingerAway',
      'takeOffForSomebody',
    ]);
  });
  it('every case of the exercise: what happened, each choice, and why', () => {
    const cases = [
      [true, false],
      [false, false],
      [false, true],
    ].flatMap(([singleUse = false, peroxide = false]) => scenariosFor({ singleUse, peroxide }));
    for (const { id, choices } of cases) {
      const words: Readonly<Record<string, string>> = messages.exercise.safe.cases[id];
      for (const key of ['what', 'why', ...choices]) expect(words[key], `${id} ${key}`).toBeTruthy();
    }
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
