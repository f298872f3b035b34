import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { listWearers } from '../../src/db/wearerSearch';
import type { WearersFound } from '../../src/services/wearer/queries';
import { addWearers } from '../../scripts/lib/manyWearers';
import { TEST_NOW } from '../support/moment';
import { openWorld, type World } from './support';

/** Finding a wearer: by number, by the beginning of any part of the name, and in spite of a slip of the hand. */
let world: World;
beforeAll(async () => {
  world = await openWorld();
  for (const [name, birthDate] of [
    ['Zoë Brännström-Okoro', '1991-02-03'],
    ['Niamh O’Sullivan', '1984-05-06'],
    ['Łukasz Strząska', '1979-07-08'],
    ['Σοφία Παππά', '2001-01-02'],
    ['100% Sure_Name', '1990-01-01'],
  ]) {
    await world.must('createWearer', { name, birthDate, telephone: '', occupation: '', guardian: '' }, world.callers.coordinator);
  }
}, 180_000);
afterAll(() => world.db.close());

const search = async (text: string): Promise<WearersFound> => (await world.must('searchWearers', { search: text })) as unknown as WearersFound;
const names = async (text: string): Promise<string[]> => (await search(text)).wearers.map((w) => w.name);

describe('finding a wearer', () => {
  it.each([
    ['zo', 'Zoë Brännström-Okoro'],
    ['ZOE bran', 'Zoë Brännström-Okoro'],
    ['okor', 'Zoë Brännström-Okoro'],
    ['okoro zoe', 'Zoë Brännström-Okoro'],
    ["o'sull", 'Niamh O’Sullivan'],
    ['sulliv', 'Niamh O’Sullivan'],
    ['strza', 'Łukasz Strząska'],
    ['lukasz', 'Łukasz Strząska'],
    ['σοφ', 'Σοφία Παππά'],
    ['100%', '100% Sure_Name'],
    ['sure_n', '100% Sure_Name'],
  ])('“%s” finds %s', async (text, name) => {
    const found = await search(text);
    expect(found.how).toBe('found');
    expect(found.wearers.map((w) => w.name)).toContain(name);
  });
  it('every part of every name finds it by its first letters', async () => {
    const all = (await search('')).wearers;
    expect(all.length).toBeGreaterThan(10);
    for (const { name } of all) {
      for (const part of name.split(/[\s’-]+/)) expect(await names(part.slice(0, 4)), `${part} of ${name}`).toContain(name);
    }
  });
  it('the middle of a word is not its beginning, and a sign that searches have is a sign like any other', async () => {
    expect((await search('ännström')).how).not.toBe('found');
    expect(await names('%')).toEqual([]);
    expect(await names('_')).toEqual([]);
    expect(await names("' or 1=1 --")).not.toContain('Niamh O’Sullivan');
  });
  it.each([
    ['Branstrom', 'Zoë Brännström-Okoro'],
    ['osulivan', 'Niamh O’Sullivan'],
    ['niam osulivan', 'Niamh O’Sullivan'],
    ['Lukash', 'Łukasz Strząska'],
  ])('mistyped “%s” offers %s, and says that nobody is called so', async (text, name) => {
    const found = await search(text);
    expect(found.how).toBe('alike');
    expect(found.wearers[0]?.name).toBe(name);
  });
  it('a record number finds its wearer, with or without noughts', async () => {
    for (const text of ['3', '0003', '#3']) {
      const found = await search(text);
      expect(found.wearers.map((w) => w.recordNumber)).toEqual([3]);
    }
  });
  it('nothing of another practice', async () => {
    const stranger = { ...world.callers.prescriber, practiceId: crypto.randomUUID() };
    await expect(world.do('searchWearers', { search: 'zoe' }, stranger)).rejects.toThrow('practice');
    expect(await listWearers(world.db.owner, stranger.practiceId, null, 5)).toEqual([]);
  });
});

describe('many wearers', () => {
  it('the list has each once, in order, page by page; a search shows twenty and says that there are more', async () => {
    await addWearers(world.db.owner, world.practiceId, 900, TEST_NOW);
    const seen: string[] = [];
    let after: { name: string; id: string } | null = null;
    for (let more = true; more;) {
      const page = (await world.must('searchWearers', { search: '', after })) as unknown as WearersFound;
      seen.push(...page.wearers.map((w) => w.id));
      const last = page.wearers.at(-1);
      after = last ? { name: last.name, id: last.id } : null;
      more = page.more;
    }
    const all = await world.db.owner<
      { id: string }[]
    >`select wearer_id as id from wearer_identity where practice_id = ${world.practiceId} order by name, wearer_id`;
    expect(seen).toEqual(all.map((w) => w.id));
    const ada = await search('ada');
    expect(ada.wearers).toHaveLength(20);
    expect(ada.more).toBe(true);
    expect(ada.wearers.every((w) => w.name.startsWith('Ada'))).toBe(true);
  });
});
