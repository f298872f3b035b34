import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { homePage, homeParts } from '../takeHomeSample';
import { careTopicsFor, DEFAULT_SETTINGS, labelMissed } from '@/core';
import { addDays, daysBetween } from '@/core/calendar/dates';
import { careDates } from '@/core/care/clocks';
import { buildUp } from '@/core/takeHome/buildUp';
import { careChanges, homeSteps, lastDayOf } from '@/core/takeHome/homeCare';
import { HOME_LINES, homeLines } from '@/core/takeHome/homeLines';
import { publicAddressOf, takeHomePage } from '@/core/takeHome/takeHome';

const parts = homeParts();
const [right, left] = parts.handOvers;
const kept = (productId: string, more: object = {}) =>
  parts.careSystems.map((c) => ({ ...c, current: c.current && { ...c.current, productId, ...more } })) as typeof parts.careSystems;
const product = (productId: string, change: object) => parts.careProducts.map((p) => (p.productId === productId ? { ...p, ...change } : p));

describe('what the page cannot be without', () => {
  const missing = (change: Parameters<typeof homeParts>[0]) => {
    const made = takeHomePage(homeParts(change));
    return made.ok ? [] : made.missing;
  };
  it('the emergency number, a hand-over at this visit, and the exact solution with its figures', () => {
    expect(missing({})).toEqual([]);
    for (const emergencyTelephone of [null, '', '  ']) expect(missing({ practice: { ...parts.practice, emergencyTelephone } })).toEqual(['emergencyTelephone']);
    expect(missing({ handOvers: [] })).toEqual(['handOver']);
    expect(missing({ visitId: 'another' })).toEqual(['handOver']);
    expect(missing({ careSystems: [] })).toEqual(['careSystem']);
    expect(missing({ careProducts: [] })).toEqual(['careSystem']);
    for (const figure of ['soakMinutes', 'storeDays', 'discardDays'] as const)
      expect(missing({ careProducts: product('tern', { [figure]: null }) })).toEqual(['careFigures']);
    expect(missing({ handOvers: [], practice: { ...parts.practice, emergencyTelephone: null } })).toEqual(['emergencyTelephone', 'handOver']);
  });
  it('a solution that is no longer sold asks a prescriber, unless a prescriber said so already', () => {
    expect(missing({ careProducts: product('tern', { ended: true }) })).toEqual(['careStopped']);
    expect(missing({ careProducts: product('tern', { ended: true }), careSystems: kept('tern', { overridden: ['ended'] }) })).toEqual([]);
    // Peroxide without its own case.
    expect(missing({ careProducts: product('petrel', { includesCase: false }), careSystems: kept('petrel') })).toEqual(['careStopped']);
    // A pair that somebody put on the list since.
    const avoid = { carePairs: [{ productId: 'tern', material: 'Samphirol', effect: 'avoid', source: 's' }] } as const;
    expect(missing(avoid)).toEqual(['careStopped']);
    expect(missing({ ...avoid, careSystems: kept('tern', { overridden: ['pairAvoid'] }) })).toEqual([]);
    expect(missing({ carePairs: [{ productId: 'tern', material: 'Samphirol', effect: 'irritates', source: 's' }] })).toEqual([]);
    // What disinfects nothing is never on the page.
    expect(missing({ careProducts: product('tern', { system: 'saline' }) })).toEqual(['careStopped']);
  });
  it('single-use lenses need no solution', () => {
    const made = takeHomePage(homeParts({ careSystems: [] }, 'daily'));
    expect(made).toMatchObject({ ok: true, page: { product: null, steps: ['bin'], changes: [] } });
  });
});

describe('what stands on it', () => {
  it('follows the product: its own figures, its own steps', () => {
    expect(homePage()).toMatchObject({ product: { name: 'Tern Multi', soakMinutes: 360, storeDays: 30 }, steps: ['rub', 'rinse', 'soak', 'empty', 'dry'] });
    const peroxide = homePage({ careSystems: kept('petrel') });
    expect(peroxide.product).toMatchObject({ soakMinutes: 375, catalystDays: 90 });
    expect(peroxide.steps).toEqual(['rub', 'peroxide', 'peroxideEye', 'emptyOwn']);
    expect(peroxide.changes.map((c) => c.what)).toEqual(['pair', 'bottle', 'catalyst']);
    expect(peroxide.lines.dont).toContain('noOtherCase');
  });
  it('day 1 is the day of opening: opened 25 November, last day 24 December; the case of 24 November until 23 February', () => {
    expect(homePage().changes).toEqual([
      { what: 'pair', openedOn: '2026-11-25', lastDay: '2026-12-24', days: 30, months: null },
      { what: 'case', openedOn: '2026-11-24', lastDay: '2027-02-23', days: null, months: 3 },
      { what: 'bottle', openedOn: '2026-11-24', lastDay: '2027-02-21', days: 90, months: null },
    ]);
    const [pair] = homePage({}, 'twoWeekly').changes;
    expect(pair?.lastDay).toBe('2026-12-08');
  });
  it('a solution used before has no known opening: how long it lasts is said instead', () => {
    const before = homePage({ careSystems: kept('tern', { visitId: 'before' }) });
    expect(before.changes.slice(1)).toMatchObject([
      { what: 'case', openedOn: null, lastDay: null, months: 3 },
      { what: 'bottle', lastDay: null, days: 90 },
    ]);
  });
  it('eyes that differ in opening or in how long a lens lasts are told apart; an eye that got nothing keeps the lens it has', () => {
    const other = { ...left, current: left?.current && { ...left.current, openedOn: '2026-11-20' } } as NonNullable<typeof left>;
    expect(homePage({ handOvers: right ? [right, other] : [] }).changes.slice(0, 2)).toMatchObject([
      { what: 'right', lastDay: '2026-12-24' },
      { what: 'left', lastDay: '2026-12-19' },
    ]);
    const earlier = { ...left, current: left?.current && { ...left.current, visitId: 'before' } } as NonNullable<typeof left>;
    expect(homePage({ handOvers: right ? [right, earlier] : [] }).lenses.left?.lensId).toBe('left');
    expect(homePage({ handOvers: right ? [right] : [] }).lenses.left).toBeNull();
  });
  it('hours are built up by who was taught for the first time here, from the first day with the lenses', () => {
    expect(homePage().hours).toEqual([
      { day: '2026-11-25', hours: 4 },
      { day: '2026-11-26', hours: 6 },
      { day: '2026-11-27', hours: 8 },
      { day: '2026-11-28', hours: 10 },
    ]);
    expect(homePage({ settings: { ...DEFAULT_SETTINGS, buildUpTo: 12 } }).hours.at(-1)?.hours).toBe(12);
    expect(homePage({ lessons: [] }).hours).toEqual([]);
    expect(homePage({ lessons: parts.lessons.map((l) => ({ ...l, visitId: 'before' })) }).hours).toEqual([]);
  });
  it('says which topics were said back, and which were not', () => {
    const page = homePage();
    expect(page.saidBack).toEqual(careTopicsFor({ singleUse: false, system: 'multipurpose' }));
    expect(page.notSaidBack).toEqual([]);
    const open = parts.lessons.map((l) => ({ ...l, signedAt: null, signOffId: null }));
    const short = homePage({ topics: parts.topics.filter((c) => c.current?.topic !== 'noWater'), lessons: open });
    expect(short.notSaidBack).toEqual(['noWater']);
    // It stays on the page all the same: what hurts eyes is never left out.
    expect(short.lines.dont).toContain('noWater');
    expect(homePage({ topics: parts.topics.map((c) => ({ ...c, current: null })), lessons: open }).saidBack).toEqual([]);
    // Years on, the sign-off stands for what was said back then, but for what a prescriber let pass.
    expect(homePage({ topics: [] }).notSaidBack).toEqual([]);
    expect(homePage({ topics: [], lessons: parts.lessons.map((l) => ({ ...l, overridden: ['topic noWater', 'sight right'] })) }).notSaidBack).toEqual([
      'noWater',
    ]);
  });
  it('nights and nails have lines of their own', () => {
    const nights = homePage({ wear: 'overnight', answers: [{ question: 'hygieneHands', value: 'longNails' }] });
    expect(nights.lines.dont).toContain('notMoreNights');
    expect(nights.lines.dont).not.toContain('noSleeping');
    expect(nights.lines.do).toEqual(expect.arrayContaining(['rollOff', 'dropsOnWaking']));
  });
});

describe('a child’s myopia lenses', () => {
  const lens = parts.lenses['right'];
  const labelled = { right: { ...lens, myopiaHours: 12, myopiaDays: 6 }, left: parts.lenses['left'] } as typeof parts.lenses;
  it('are worn as their label says, built up to it, and it is said back', () => {
    const page = homePage({ lenses: labelled });
    expect(page.label).toEqual({ hours: 12, days: 6 });
    expect(page.hours.at(-1)?.hours).toBe(12);
    expect([...page.saidBack, ...page.notSaidBack]).toContain('labelHours');
    expect(homePage().label).toBeNull();
  });
  it('fewer hours or days than the label miss it; unknown ones do not', () => {
    const label = { hours: 10, days: 6 };
    expect(labelMissed(label, 10, 6)).toBe(false);
    expect(labelMissed(label, 9, 7)).toBe(true);
    expect(labelMissed(label, 12, 5)).toBe(true);
    expect(labelMissed(label, null, null)).toBe(false);
  });
});

describe('lines and topics', () => {
  it('every topic has a line or a step, and every line its topic', () => {
    const lined = new Set<string>(HOME_LINES.map((l) => l.topic));
    // Evening and morning, and the hours.
    const stepped = ['labelHours', 'rubAndRinse', 'freshSolution', 'ownCaseFullHours', 'replaceOnTime'];
    const all = new Set([
      ...careTopicsFor({ singleUse: false, system: 'peroxide', longNails: true, labelled: true }),
      ...careTopicsFor({ singleUse: true, overnight: true }),
    ]);
    for (const topic of all) expect(lined.has(topic) || stepped.includes(topic), topic).toBe(true);
    for (const { topic } of HOME_LINES) expect(all.has(topic), topic).toBe(true);
  });
  it('the practice chooses between make-up schools', () => {
    const lines = (makeUp: 'lensesFirst' | 'powdersFirst') => homeLines({ topics: ['cleanDryHands'], singleUse: false, settings: { makeUp } }).do;
    expect(lines('lensesFirst')).toContain('lensesBeforeMakeUp');
    expect(lines('powdersFirst')).toContain('powdersBeforeLenses');
    expect(lines('powdersFirst')).not.toContain('lensesBeforeMakeUp');
  });
});

describe('dates', () => {
  const day = fc.date({ min: new Date('2024-01-01'), max: new Date('2032-12-31'), noInvalidDate: true }).map((d) => d.toISOString().slice(0, 10));
  it('hours begin with 4, grow by 2 at most, end with the most, one day after another', () => {
    fc.assert(
      fc.property(day, fc.integer({ min: 8, max: 14 }), (first, most) => {
        const days = buildUp(first, most);
        expect(days[0]).toEqual({ day: first, hours: 4 });
        expect(days.at(-1)?.hours).toBe(most);
        days.forEach((d, i) => {
          expect(d.day).toBe(addDays(first, i));
          expect(d.hours - (days[i - 1]?.hours ?? d.hours)).toBeLessThanOrEqual(2);
        });
      }),
    );
  });
  it('the last day that a telephone reckons is the page’s own', () => {
    fc.assert(
      fc.property(day, fc.constantFrom(1, 3), (openedOn, months) => {
        const tern = {
          productId: 'p',
          name: 'P',
          system: 'multipurpose',
          ownLabel: false,
          soakMinutes: 360,
          storeDays: 30,
          discardDays: 90,
          catalystDays: 60,
        } as const;
        for (const change of careChanges(tern, openedOn, months)) expect(lastDayOf(change, openedOn)).toBe(change.lastDay);
        expect(careDates(openedOn, tern, months).bottle).toBe(addDays(openedOn, 89));
      }),
    );
  });
  it('month ends: a case of 31 January lasts to 27 February, of 30 November in a leap year to 28 February', () => {
    expect(lastDayOf({ days: null, months: 1 }, '2026-01-31')).toBe('2026-02-27');
    expect(lastDayOf({ days: null, months: 3 }, '2027-11-30')).toBe('2028-02-28');
    expect(lastDayOf({ days: 30, months: null }, '2026-01-01')).toBe('2026-01-30');
    expect(daysBetween('2026-01-01', lastDayOf({ days: 14, months: null }, '2026-01-01'))).toBe(13);
  });
  it('steps of nothing that is kept', () => {
    expect(homeSteps(null)).toEqual(['bin']);
  });
});

describe('an address that telephones trust', () => {
  it.each([
    ['https://lenses.example', 'https://lenses.example'],
    [' HTTPS://Lenses.example:8443/ ', 'https://lenses.example:8443'],
    ['http://127.0.0.1:3000', 'http://127.0.0.1:3000'],
    ['http://lenses.example', null],
    ['https://user@lenses.example', null],
    ['https://lenses.example/path', null],
    ['https://lenses.example#x', null],
    ['javascript:alert(1)', null],
    ['', null],
  ])('%s', (typed, address) => expect(publicAddressOf(typed)).toBe(address));
});
