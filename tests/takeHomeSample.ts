import { takeHomePage, DEFAULT_SETTINGS, type TakeHomePage, type TakeHomeParts } from '@/core';

const fact = {
  observedAt: '2026-11-24T15:00:00.000Z',
  recordedAt: '2026-11-24T15:00:00.000Z',
  recordedBy: 'a',
  recordedByName: 'Asha',
  correctsId: null,
  correctionReason: null,
  voided: false,
  visitId: 'v',
};
const chain = <Row extends object>(id: string, row: Row) => ({ rootId: id, rows: [], current: { id, rootId: id, ...fact, ...row } });
const lens = (id: string, sphereD: number, cylinderD: number, axisDeg: number, modality: 'daily' | 'twoWeekly' | 'monthly' = 'monthly') => ({
  ...{
    id,
    familyVersionId: 'f',
    sphereD,
    cylinderD,
    axisDeg,
    addBand: null,
    baseCurveMm: 8.6,
    diameterMm: 14.2,
    familyCode: 'plover',
    familyName: 'Plover 30 Toric',
  },
  ...{ maker: 'Marram', geometry: 'toric', modality, markLayout: 'six', settleMinutes: 10, listed: true },
});
/** What a page follows from: a monthly toric pair, taught, with a multipurpose solution. */
export function homeParts(change: Partial<TakeHomeParts> = {}, modality: 'daily' | 'twoWeekly' | 'monthly' = 'monthly'): TakeHomeParts {
  const topics = [
    'cleanDryHands',
    'rightWayOut',
    'rubAndRinse',
    'freshSolution',
    'noWater',
    'neverSleep',
    'droppedLens',
    'stuckLens',
    'moveAndFind',
    'replaceOnTime',
    'glassesAlways',
    'dangerSigns',
  ];
  const handOver = (eye: 'right' | 'left') =>
    chain(`h-${eye}`, {
      eye,
      lensId: eye,
      source: 'trial',
      lensOnEyeId: eye,
      orderLineId: null,
      lot: 'A1',
      expiresOn: '2028-01-31',
      openedOn: '2026-11-25',
      lensCount: 1,
      handedOn: '2026-11-24',
    });
  return {
    visitId: 'v',
    wearer: { name: 'Nessa Quillby', birthDate: '1992-03-02', recordNumber: 417 },
    practice: { name: 'Saltmarsh Eye Care', address: '3 Fleetholm Quay', telephone: '555-0140', timeZone: 'America/New_York', emergencyTelephone: '555-0142' },
    settings: DEFAULT_SETTINGS,
    handOvers: [handOver('right'), handOver('left')],
    lenses: { right: lens('right', -3, -1.75, 30, modality), left: lens('left', -4.25, -1.25, 170, modality) },
    careSystems: [
      chain('c', {
        eye: null,
        productId: 'tern',
        careProductId: 'tern-1',
        productName: 'Tern Multi',
        chosenFor: 'first',
        note: null,
        overridden: [],
        overrideNote: null,
      }),
    ],
    careProducts: [
      {
        productId: 'tern',
        system: 'multipurpose',
        name: 'Tern Multi',
        maker: 'Marram',
        ownLabel: false,
        soakMinutes: 360,
        storeDays: 30,
        discardDays: 90,
        catalystDays: null,
        includesCase: true,
        ended: false,
      },
      {
        productId: 'petrel',
        system: 'peroxide',
        name: 'Petrel Peroxide',
        maker: 'Marram',
        ownLabel: false,
        soakMinutes: 375,
        storeDays: 7,
        discardDays: 90,
        catalystDays: 90,
        includesCase: true,
        ended: false,
      },
    ],
    lessons: [
      {
        id: 'l',
        visitId: 'v',
        wearerId: 'w',
        eyes: ['right', 'left'],
        onAtStart: [],
        singleUse: false,
        onlyTopics: null,
        handler: null,
        startedAt: '2026-11-24T14:00:00.000Z',
        startedByName: 'Asha',
        signOffId: 's',
        signedAt: '2026-11-24T15:00:00.000Z',
        signedByName: 'Asha',
        overnight: false,
        productId: 'tern',
        overridden: [],
        overrideNote: null,
      },
    ],
    topics: topics.map((topic) => chain(`t-${topic}`, { eye: null, lessonId: 'l', topic, atEnd: false })),
    answers: [],
    wear: 'day',
    lessonInstructions: [],
    materials: [{ code: 'plover', material: 'Samphirol' }],
    carePairs: [],
    coming: { startsAt: '2026-12-01T14:20:00.000Z', minutes: 20 },
    drawn: { hand: 'right', skinTone: 3 },
    dayOf: (at) => at.slice(0, 10),
    ...change,
  } as TakeHomeParts;
}
/** The page of it. */
export function homePage(change: Partial<TakeHomeParts> = {}, modality: 'daily' | 'twoWeekly' | 'monthly' = 'monthly'): TakeHomePage {
  const made = takeHomePage(homeParts(change, modality));
  if (!made.ok) throw new Error(made.missing.join(' '));
  return made.page;
}
