import { randomUUID } from 'node:crypto';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { may, ROLES } from '../../src/core';
import { SERVICES, type ServiceName } from '../../src/services';
import { lock, resume, signIn } from '../../src/services/session/access';
import { resumeLink } from '../../src/services/session/link';
import { perform } from '../../src/services/perform';
import { fillDrawer } from '../support/drawer';
import { blinksAt, homeToken, openNeighbour, openWorld, SENTENCES, spec, taughtAndGiven, type World } from './support';

let world: World;
let ids: {
  importId: string;
  visitId: string;
  wearerId: string;
  onEye: string;
  factId: string;
  lessonId: string;
  orderId: string;
  prescriptionId: string;
  staffId: string;
  appointmentId: string;
  linkId: string;
  trialStockId: string;
  loanId: string;
  lensId: string;
  taskId: string;
  roomId: string;
  homeVisitId: string;
  sheetId: string;
};
let lens: Awaited<ReturnType<typeof spec>>;

/** A page that was given on a telephone: its visit, its sheet, its link. */
async function homeOf() {
  const homeVisitId = await taughtAndGiven(world);
  const caller = await resumeLink(world.deps, await homeToken(world, homeVisitId));
  const [sheet] = await world.db.owner<{ id: string }[]>`select id from take_home_sheet where visit_id = ${homeVisitId}`;
  return { homeVisitId, linkId: caller.ok ? caller.value.linkId : '', sheetId: sheet?.id ?? '' };
}

beforeAll(async () => {
  world = await openWorld();
  await fillDrawer(world.db.owner, 50);
  const visitId = await world.visit();
  lens = await spec(world, 'plover-30-toric', -3, -1.75, 20);
  await world.must('putOnTrials', { visitId, version: 2, right: lens, left: null });
  const onEye = (await world.record(visitId)).facts.onEye[0]?.rootId ?? '';
  await world.must('recordOnEye', {
    visitId,
    version: 3,
    right: { lensOnEyeId: onEye, fit: 'fits', blinks: blinksAt(10), overRefraction: '+0.25 -0.50 x 70', vertexMm: 12 },
    left: null,
  });
  const { prescriptionId = '' } = await world.must('sign', {
    visitId,
    version: 4,
    password: 'plain-sight',
    right: { mode: 'final', lens: { ...lens, axis: 30 }, triedLensOnEyeId: onEye },
    left: null,
    expiresOn: '2027-11-24',
    waitNote: 'note',
    daysPerWeek: 7,
    overrides: SENTENCES,
  });
  const { lessonId = '' } = await world.must('startLesson', { visitId, version: 5 });
  const { orderId = '' } = await world.must('placeOrder', { visitId, version: 6, requestKey: randomUUID(), prescriptionId, rightPacks: 1, leftPacks: 0 });
  const record = await world.record(visitId);
  const [appointment] = await world.db.owner<{ id: string }[]>`select id from appointment limit 1`;
  const { importId = '' } = await world.must('recordImport', { fileName: 'a.csv', bytes: new TextEncoder().encode('x') }, world.callers.admin);
  const [stock] = await world.db.owner<
    { id: string; lensId: string }[]
  >`select id, lens_id from trial_stock where practice_id = ${world.practiceId} and count > 1 limit 1`;
  const { loanId = '' } = await world.must('lendTrials', { trialStockId: stock?.id, count: 1, lentTo: 'the branch' });
  ids = {
    importId,
    loanId,
    lensId: stock?.lensId ?? '',
    visitId,
    wearerId: record.wearer.id,
    onEye,
    factId: record.facts.refractions[0]?.rootId ?? '',
    lessonId,
    orderId,
    prescriptionId,
    staffId: world.callers.technician.personId,
    appointmentId: appointment?.id ?? '',
    trialStockId: stock?.id ?? '',
    roomId: (await world.db.owner<{ id: string }[]>`select id from room where practice_id = ${world.practiceId} limit 1`)[0]?.id ?? '',
    taskId: String((await world.must('addTask', { kind: 'call', text: 'say hello', wearerId: null, dueOn: '2026-11-25', assignedTo: null })).taskId),
    ...(await homeOf()),
  };
}, 60_000);
afterAll(() => world.db.close());

const PLACE = { day: '2026-11-25', time: '15:00', chairMinutes: 20, staffMinutes: 10, roomId: null, staffId: null, despite: '' };

/** An input of the right shape for every use case, aimed at this practice's record. */
const inputs: Readonly<Record<ServiceName, () => unknown>> = {
  changePractice: () => ({ version: 99, name: 'A', town: 'B', address: 'C', telephone: '1', emergencyTelephone: '2' }),
  readOrders: () => ({}),
  readDue: () => ({}),
  instructLesson: () => ({ visitId: ids.visitId, version: 99, what: 'addition', text: 'drops at noon', why: null }),
  recordPairReading: () => ({
    visitId: ids.visitId,
    version: 99,
    rightLensOnEyeId: randomUUID(),
    leftLensOnEyeId: randomUUID(),
    tasks: [{ task: 'phone', distanceCm: 35, satisfaction: 7 }],
    held: [],
  }),
  keepPairChange: () => ({ visitId: ids.visitId, version: 99, rightLensOnEyeId: randomUUID(), leftLensOnEyeId: randomUUID(), change: { kind: 'swap' } }),
  recordNearFindings: () => ({ visitId: ids.visitId, version: 99, findings: [{ sign: 'stereo', value: 40 }] }),
  recordDriving: () => ({ visitId: ids.visitId, version: 99, said: 'waits' }),
  decideNearWay: () => ({ visitId: ids.visitId, version: 99, way: 'multifocal', reason: 'tried before' }),
  readLessonsNow: () => ({}),
  readFigures: () => ({}),
  readLessonFigures: () => ({}),
  readCoverage: () => ({}),
  chooseContact: () => ({ wearerId: ids.wearerId, way: 'none', recipient: '' }),
  markMessage: () => ({ messageId: randomUUID(), sent: true }),
  writeReminder: () => ({ wearerId: ids.wearerId }),
  writeRecallMessages: () => ({ recallId: randomUUID() }),
  readOutbox: () => ({}),
  readMessage: () => ({ messageId: randomUUID() }),
  openRecall: () => ({ lot: 'Z9', familyCode: 'no-such', reason: 'edges tear' }),
  recordRecallCall: () => ({ recallId: randomUUID(), wearerId: ids.wearerId, outcome: 'stopped', note: '' }),
  liftRecall: () => ({ recallId: randomUUID(), reason: 'free again' }),
  readRecalls: () => ({}),
  readRecall: () => ({ recallId: randomUUID() }),
  readOrder: () => ({ orderId: ids.orderId }),
  readBag: () => ({ orderId: ids.orderId, code: 'KFB1/x/R' }),
  readSuppliers: () => ({}),
  cancelOrder: () => ({ orderId: ids.orderId, reason: 'no longer wanted' }),
  recordTelephoned: () => ({ orderId: ids.orderId, reference: 'T-1', dueOn: '2026-12-05' }),
  recordArrived: () => ({ orderId: ids.orderId, arrived: true }),
  openClaim: () => ({ orderId: ids.orderId, orderLineId: randomUUID(), kind: 'wrong', packs: 1, note: '' }),
  stepClaim: () => ({ claimId: randomUUID(), step: 'told', note: '' }),
  saveSupplier: () => ({
    id: randomUUID(),
    version: 1,
    name: 'Spindrift',
    makers: [],
    endpoint: null,
    telephone: '555 0100',
    cutOff: '16:00',
    minimumMinor: 0,
    toWearers: false,
    ended: false,
  }),
  renewSupplierSecret: () => ({ supplierId: randomUUID() }),
  recordLoss: () => ({ wearerId: ids.wearerId, eye: 'right', lenses: 1, why: 'torn', lostOn: '2026-11-20' }),
  withdrawLoss: () => ({ lossId: randomUUID() }),
  orderTrials: () => ({ visitId: ids.visitId, version: 1, requestKey: randomUUID(), right: lens, left: null, despiteReason: '' }),
  compareWearers: () => ({ keep: 1, other: 2 }),
  readMerges: () => ({}),
  mergeWearers: () => ({ keepId: ids.wearerId, keepVersion: 1, otherId: randomUUID(), otherVersion: 1, reason: 'one person' }),
  undoMerge: () => ({ mergeId: randomUUID(), reason: 'two people' }),
  readToday: () => ({}),
  readDiary: () => ({ day: '2026-11-25', wearerId: ids.wearerId }),
  readAppointment: () => ({ appointmentId: ids.appointmentId }),
  findFree: () => ({ kind: 'longFollowUp', from: '2026-11-25', chairMinutes: 30, staffMinutes: 10, roomId: null, staffId: null, wearerId: null }),
  bookAppointment: () => ({ wearerId: ids.wearerId, kind: 'longFollowUp', note: '', ...PLACE }),
  moveAppointment: () => ({ appointmentId: ids.appointmentId, version: 1, ...PLACE }),
  markAppointment: () => ({ appointmentId: ids.appointmentId, version: 1, as: 'cancelled', reason: '' }),
  sayLate: () => ({ appointmentId: ids.appointmentId, version: 1, minutes: 10 }),
  undoAppointment: () => ({ appointmentId: ids.appointmentId, version: 1 }),
  readTasks: () => ({}),
  addTask: () => ({ kind: 'call', text: 'say hello', wearerId: ids.wearerId, dueOn: '2026-11-25', assignedTo: null }),
  changeTask: () => ({ taskId: ids.taskId, version: 1, dueOn: '2026-11-26', assignedTo: null, note: '' }),
  finishTask: () => ({ taskId: ids.taskId, version: 1, done: true, note: '' }),
  readRooms: () => ({}),
  readOrderEvents: () => ({ orderIds: [ids.orderId] }),
  importWearers: () => ({ bytes: new TextEncoder().encode('x'), take: true }),
  importTrials: () => ({ bytes: new TextEncoder().encode('x'), take: true }),
  addRoom: () => ({ name: 'Attic' }),
  changeRoom: () => ({ roomId: ids.roomId, version: 1, name: 'Room 9', sortOrder: 9, ended: false }),
  setOpeningHours: () => ({ weekday: 1, closed: true }),
  setClosedDay: () => ({ day: '2026-12-25', name: 'Winter holiday', closed: true }),
  searchWearers: () => ({ search: '' }),
  readWearer: () => ({ wearerId: ids.wearerId }),
  createWearer: () => ({ name: 'Somebody New', birthDate: '1990-01-02' }),
  updateWearer: () => ({ wearerId: ids.wearerId, version: 99, name: 'X', birthDate: '1990-01-02' }),
  openVisit: () => ({ wearerId: ids.wearerId, kind: 'longFollowUp' }),
  closeVisit: () => ({ visitId: ids.visitId, version: 1 }),
  readVisit: () => ({ visitId: ids.visitId, page: 'onEye' }),
  readNewer: () => ({ visitId: ids.visitId, page: 'onEye', version: 0 }),
  readSession: () => ({}),
  readFamilies: () => ({}),
  saveDraft: () => ({ visitId: ids.visitId, step: 'refraction', body: { right: '-1' }, sequence: 1 }),
  recordHistory: () => ({ visitId: ids.visitId, version: 1, answers: [{ question: 'daysPerWeek', value: 5, note: null }] }),
  recordFindings: () => ({ visitId: ids.visitId, version: 1, right: [{ sign: 'lidMargin', value: 1 }], left: [] }),
  answerAftercare: () => ({ visitId: ids.visitId, version: 1, answers: [{ question: 'glasses', eye: null, said: ['usable'] }] }),
  endAftercare: () => ({ visitId: ids.visitId, version: 1, outcome: 'stop', note: 'glasses again', unbookedReason: '' }),
  recordAdverseEvent: () => ({ visitId: ids.visitId, version: 1, eye: 'right', event: 'abrasion', beganOn: '2026-11-20' }),
  returnToWear: () => ({ visitId: ids.visitId, version: 1, eye: 'right', adverseEventId: randomUUID(), newLens: true, newCase: true, dropsOff: true }),
  triageRedEye: () => ({ wearerId: ids.wearerId, signs: ['redness'], onset: '', goes: 'emergency' }),
  recordRequest: () => ({
    sellerName: 'Quayside Lenses',
    sellerContact: '0555 0199',
    wearerId: ids.wearerId,
    wearerName: 'Somebody',
    receivedOn: '2026-11-24',
    receivedTime: '9:30',
    right: null,
    left: null,
  }),
  matchRequest: () => ({ requestId: randomUUID(), wearerId: ids.wearerId }),
  answerRequest: () => ({ requestId: randomUUID(), seen: 0, answer: 'expired' }),
  readRequests: () => ({}),
  keepOutsidePrescription: () => ({ wearerId: ids.wearerId, fileName: 'a.csv', text: 'eye,sphere\nright,-1', despiteReason: 'theirs' }),
  readPrescriptionCopy: () => ({ prescriptionId: ids.prescriptionId }),
  recordCopyRequest: () => ({
    wearerId: ids.wearerId,
    agentName: 'Quayside Lenses',
    agentContact: 'fax 0555 0199',
    receivedOn: '2026-11-24',
    receivedTime: '9:30',
  }),
  endCopyRequest: () => ({ copyRequestId: randomUUID(), how: 'refused', reason: 'nobody we know' }),
  readTimeline: () => ({ wearerId: ids.wearerId }),
  exportPerson: () => ({ wearerId: ids.wearerId }),
  readPrescriptionFile: () => ({ wearerId: ids.wearerId, fileName: 'a.csv', text: 'eye,sphere\nright,-1' }),
  readOutsidePrescriptions: () => ({ wearerId: ids.wearerId }),
  exportPrescription: () => ({ prescriptionId: randomUUID(), format: 'csv' }),
  prescribeCare: () => ({ visitId: ids.visitId, version: 1, productId: randomUUID(), chosenFor: 'first' }),
  recordCopy: () => ({ visitId: ids.visitId, version: 1, prescriptionId: randomUUID(), how: 'signed' }),
  recordLesion: () => ({ visitId: ids.visitId, version: 1, eye: 'right', kind: 'staining', nasalMm: 1, upMm: 1, longMm: 1, acrossMm: 1 }),
  acknowledgeAlert: () => ({ visitId: ids.visitId, version: 1, answerId: randomUUID() }),
  overrideStop: () => ({ visitId: ids.visitId, version: 1, rule: 'dust', reason: 'because' }),
  endStop: () => ({ visitId: ids.visitId, version: 1, stopId: randomUUID(), how: 'healed', reason: 'because' }),
  openReferral: () => ({ visitId: ids.visitId, version: 1, stopId: randomUUID() }),
  recordReferralStep: () => ({ visitId: ids.visitId, version: 1, referralId: randomUUID(), step: 'phoned' }),
  readMeasurementFile: () => ({ visitId: ids.visitId, bytes: new TextEncoder().encode('eye,sphere\nright,-1.00') }),
  takePictures: () => ({ visitId: ids.visitId, version: 1, eye: 'right', lensId: ids.visitId, count: 1 }),
  recordPicture: () => ({ visitId: ids.visitId, version: 1, eye: 'right', title: '', declaredType: 'image/png', bytes: new Uint8Array(4) }),
  readPicture: () => ({ pictureId: randomUUID() }),
  decideKind: () => ({ visitId: ids.visitId, version: 1, modality: 'daily', wear: 'day', reason: null }),
  readSettings: () => ({}),
  changeSetting: () => ({ key: 'idleMinutes', value: 11, lastChangeId: null }),
  recordRefraction: () => ({ visitId: ids.visitId, version: 1, right: '-1.00', left: null, vertexMm: 12 }),
  putOnTrials: () => ({ visitId: ids.visitId, version: 1, right: lens, left: null }),
  putOnSetLenses: () => ({ visitId: ids.visitId, version: 1, right: randomUUID(), left: null }),
  recordGuidedCylinder: () => ({
    visitId: ids.visitId,
    version: 1,
    eye: 'right',
    lensOnEyeId: randomUUID(),
    startAxis: null,
    blur: [110, 40],
    step: 1,
    answers: ['same'],
  }),
  addSetLenses: () => ({ familyId: lens.familyId, lenses: [{ number: '1', lens, expiresOn: '2030-01-01' }] }),
  disinfectLenses: () => ({ diagnosticLensIds: [randomUUID()] }),
  endSetLens: () => ({ diagnosticLensId: randomUUID(), why: 'lost' }),
  readSets: () => ({}),
  readSetLens: () => ({ diagnosticLensId: randomUUID() }),
  recordBroughtIn: () => ({ visitId: ids.visitId, version: 1, eye: 'left', description: 'a lens', power: '-1.00', how: 'boxSeen' }),
  changeVisit: () => ({ visitId: ids.visitId, version: 1, kind: 'lensAnnual', fee: null }),
  recordExamined: () => ({ wearerId: ids.wearerId, examinedOn: '1 Nov 2026', byWhom: 'the harbour clinic' }),
  answerWorn: () => ({ visitId: ids.visitId, version: 1, right: { answer: 'yes', lensId: randomUUID() }, left: null, since: { time: '7' }, how: 'wearerSaid' }),
  confirmLens: () => ({ visitId: ids.visitId, version: 1, lensOnEyeId: ids.onEye, how: 'boxSeen' }),
  takeOff: () => ({ visitId: ids.visitId, version: 1, lensOnEyeIds: [ids.onEye] }),
  putBack: () => ({ visitId: ids.visitId, version: 1, lensOnEyeId: ids.onEye, reason: 'still on' }),
  recordOnEye: () => ({
    visitId: ids.visitId,
    version: 1,
    right: { lensOnEyeId: ids.onEye, fit: 'fits', overRefraction: null, vertexMm: 12 },
    left: null,
  }),
  chooseLens: () => ({ visitId: ids.visitId, version: 1, lensOnEyeId: ids.onEye, why: 'it sat better' }),
  addInstrument: () => ({ name: 'Room 2', readStraight: 90, readTurned: 110 }),
  endInstrument: () => ({ instrumentId: randomUUID() }),
  readSettling: () => ({}),
  correct: () => ({ visitId: ids.visitId, version: 1, kind: 'refraction', factId: ids.factId, reason: 'because', value: null }),
  swapEyes: () => ({ visitId: ids.visitId, version: 1, kind: 'refraction', reason: 'because' }),
  undo: () => ({ visitId: ids.visitId, version: 1, facts: [{ kind: 'refraction', id: ids.factId }] }),
  sign: () => ({
    visitId: ids.visitId,
    version: 1,
    password: 'plain-sight',
    right: { mode: 'final', lens, triedLensOnEyeId: ids.onEye },
    left: null,
    expiresOn: '2027-11-24',
    waitNote: 'x',
    daysPerWeek: 7,
    overrides: SENTENCES,
  }),
  startLesson: () => ({ visitId: ids.visitId, version: 1 }),
  recordAttempt: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, eye: 'right', move: 'off', worked: true, miss: null }),
  recordTopic: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, topic: 'noWater' }),
  recordTopicsAgain: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, topics: ['noWater'] }),
  setLessonWay: () => ({
    ...{ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, hand: 'left', dexterity: 'good', skinTone: 4 },
    ...{ onTechnique: null, offTechnique: null },
  }),
  turnLessonClock: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, turn: 'run' }),
  stopLesson: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, unbookedReason: 'x' }),
  recordLessonSight: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId, eye: 'right', acuity: { logMar: 0, typed: '20/20' } }),
  openLessonScreen: () => ({ lessonId: ids.lessonId }),
  showLessonPage: () => ({
    ...{ lessonId: ids.lessonId, part: 'on', page: 1, eye: 'right', hand: 'right', skinTone: 3 },
    ...{ onTechnique: 'twoHanded', offTechnique: 'slideAndPinch', peroxide: false },
  }),
  answerExercise: () => ({ lessonId: ids.lessonId, scenario: 'shared', choice: 'never' }),
  readLessonScreen: () => ({ lessonId: ids.lessonId }),
  signOffLesson: () => ({ visitId: ids.visitId, version: 1, lessonId: ids.lessonId }),
  handOver: () => ({ visitId: ids.visitId, version: 1, right: { lensOnEyeId: ids.onEye, lot: 'A', expiresOn: '2027-01-01' }, left: null, experienceNote: 'x' }),
  placeOrder: () => ({ visitId: ids.visitId, version: 1, requestKey: randomUUID(), prescriptionId: ids.prescriptionId, rightPacks: 1, leftPacks: 0 }),
  hastenOrder: () => ({ orderId: ids.orderId, visitId: ids.visitId }),
  reorderLenses: () => ({
    wearerId: ids.wearerId,
    requestKey: randomUUID(),
    prescriptionId: ids.prescriptionId,
    rightPacks: 1,
    leftPacks: 0,
    noDanger: true,
    sightSame: true,
  }),
  bridgeWithTrials: () => ({ wearerId: ids.wearerId, prescriptionId: ids.prescriptionId, right: 1, left: 0, noDanger: true, identityAsked: true }),
  withdrawBridge: () => ({ visitId: ids.visitId, reason: 'left here' }),
  recordReorderCall: () => ({ wearerId: ids.wearerId, outcome: 'message' }),
  readBox: () => ({ orderId: ids.orderId, gtin: '06291041500213' }),
  readReorder: () => ({ wearerId: ids.wearerId }),
  readLibrary: () => ({}),
  readFamily: () => ({ code: 'plover-30-toric' }),
  exportCatalogue: () => ({}),
  saveFamily: () => ({ code: 'plover-30-toric', baseVersion: 99, startsOn: '2026-12-01', lines: [{ name: 'x' }], confirm: true }),
  endFamily: () => ({ code: 'plover-30-toric', lastOrderOn: '2027-01-01', replacedBy: null, reason: 'because' }),
  changeHouseList: () => ({ modality: 'daily', geometry: 'multifocal', codes: [], lastId: null }),
  recordImport: () => ({ fileName: 'a.csv', bytes: new Uint8Array(4) }),
  readImport: () => ({ importId: ids.importId }),
  readImportFaults: () => ({ importId: ids.importId }),
  takeImport: () => ({ importId: ids.importId, startsOn: '2026-12-01' }),
  cancelImport: () => ({ importId: ids.importId }),
  saveCareProduct: () => ({
    productId: null,
    version: 0,
    system: 'peroxide',
    maker: 'm',
    name: 'n',
    contents: 'c',
    lastsDays: 30,
    price: 10,
    includesCase: true,
    ended: false,
  }),
  readStaff: () => ({}),
  addStaff: () => ({
    account: `new-${Math.floor(performance.now() * 1000)}`,
    displayName: 'New',
    title: 'technician',
    roles: ['technician'],
    password: 'long enough pw',
  }),
  changeStaff: () => ({ personId: ids.staffId, version: 1, title: 'x', registerNumber: '', address: '', roles: ['technician'] }),
  endStaff: () => ({ personId: ids.staffId, version: 99 }),
  resetPassword: () => ({ personId: ids.staffId, password: 'plain-sight-again' }),
  setLights: () => ({ deviceId: randomUUID(), lights: 'down' }),
  stillHere: () => ({}),
  setClock: () => ({ frozenAt: null, offsetSeconds: 0 }),
  recordCarePair: () => ({ productId: randomUUID(), material: 'Samphirol', effect: 'irritates', source: 'its maker' }),
  giveTakeHome: () => ({ visitId: ids.visitId, language: 'en', way: 'paper' }),
  checkLanguage: () => ({ language: 'es', words: 'abcd1234', speaker: 'A speaker', checkedOn: '2026-11-20' }),
  readHomePage: () => ({ visitId: ids.visitId }),
  readSheet: () => ({ sheetId: ids.sheetId }),
  endWearerLink: () => ({ linkId: ids.linkId }),
  readTakeHome: () => ({ visitId: ids.homeVisitId }),
  recordReceipt: () => ({ orderId: ids.orderId, right: { packs: 1, lot: 'A', expiresOn: '2028-01-01' }, left: null }),
  handOverBoxes: () => ({ visitId: ids.visitId, version: 1, orderId: ids.orderId, receiptIds: [randomUUID()], identityAsked: true, experienceNote: 'x' }),
  readDrawer: () => ({}),
  readTrialMovements: () => ({ trialStockId: ids.trialStockId }),
  readTrialBox: () => ({ gtin: '06291041500213' }),
  readRestock: () => ({}),
  exportRestock: () => ({}),
  lendTrials: () => ({ trialStockId: ids.trialStockId, count: 1, lentTo: 'the branch' }),
  endTrialLoan: () => ({ loanId: ids.loanId, returned: 0 }),
  setTrialLevels: () => ({ levels: [{ lens, least: 1 }] }),
  recordRestock: () => ({ lines: [{ lensId: ids.lensId, count: 1 }] }),
  receiveTrials: () => ({ lens, lot: 'A', expiresOn: '2028-01-01', count: 1, despiteReason: '' }),
  discardTrials: () => ({ trialStockId: ids.trialStockId, count: 1, why: 'expired' }),
  countTrials: () => ({ trialStockId: ids.trialStockId, seen: 0, counted: 1 }),
};
const names = Object.keys(SERVICES) as ServiceName[];
/** Use cases that name no record: another practice may do them, for itself. */
const FOR_ITSELF: readonly ServiceName[] = [
  'readSession',
  'changePractice',
  'readOrders',
  'readDue',
  'readTrialBox',
  'readRestock',
  'exportRestock',
  'readFigures',
  'readLessonsNow',
  'readLessonFigures',
  'readCoverage',
  'readOutbox',
  'readRecalls',
  'readSuppliers',
  'compareWearers',
  'readMerges',
  'readFamilies',
  'addInstrument',
  'readSettling',
  'readToday',
  'searchWearers',
  'createWearer',
  'readStaff',
  'addStaff',
  'readSettings',
  'readRequests',
  'changeSetting',
  'readLibrary',
  'readFamily',
  'exportCatalogue',
  'saveFamily',
  'endFamily',
  'changeHouseList',
  'recordImport',
  'saveCareProduct',
  'setLights',
  'stillHere',
  'setClock',
  'readDrawer',
  'readSets',
  'findFree',
  'readTasks',
  'readRooms',
  'addRoom',
  'setOpeningHours',
  'setClosedDay',
  'importWearers',
  'importTrials',
  'checkLanguage',
];

describe('every use case', () => {
  it('is looked at here', () => {
    expect(names).toHaveLength(196);
    expect(Object.keys(inputs).sort()).toEqual([...names].sort());
  });
  it.each(names.flatMap((name) => ROLES.map((role) => [name, role] as const)))('%s by a %s: allowed by the matrix, and only then', async (name, role) => {
    const service = SERVICES[name];
    // Deeds that would change the world are done by nobody here who may: only the refusal is looked at.
    const result = await world.do(
      name,
      may([role], service.right) && !service.name.startsWith('read') ? { nonsense: true } : inputs[name](),
      world.callers[role],
    );
    const refused = !result.ok && result.error.kind === 'forbidden';
    expect(refused).toBe(!may([role], service.right));
  });
  it('with no role at all is refused', async () => {
    for (const name of names)
      expect(await world.do(name, inputs[name](), { ...world.asha, roles: [] })).toMatchObject({ ok: false, error: { kind: 'forbidden' } });
  });
});

describe('another practice', () => {
  it('finds nothing of this one, whatever it asks with, and changes nothing', async () => {
    const neighbour = await openNeighbour(world);
    const tables = [
      'refraction',
      'lens_on_eye',
      'diagnostic_lens',
      'guided_cylinder',
      'diagnostic_disinfection',
      'diagnostic_lens_end',
      'prescription',
      'lesson_attempt',
      'lesson_way',
      'lesson_turn',
      'lesson_sight',
      'lesson_instruction',
      'hand_over',
      'lens_order',
      'wearer_identity',
      'draft',
      'history_answer',
      'eye_finding',
      'safety_stop',
      'stop_override',
      'kind_decision',
      'picture',
      'practice_setting',
      'lens_family_version',
      'lens_family_ending',
      'house_list',
      'care_product',
      'catalogue_import',
      'visit',
      'membership',
      'wearer_link',
      'wearer_link_end',
      'take_home_sheet',
      'language_check',
      'care_pair',
      'care_system',
      'message',
      'trial_stock',
      'trial_movement',
      'order_receipt',
      'brought_along',
      'room',
      'appointment',
      'appointment_event',
      'task',
      'task_event',
      'opening_hours',
      'closed_day',
    ];
    const count = async (): Promise<unknown[]> =>
      Promise.all(
        tables.map((t) =>
          world.db.owner.unsafe(`select md5(string_agg(x::text, '|' order by x::text)) as sum from ${t} x where practice_id = '${world.practiceId}'`),
        ),
      );
    const before = await count();
    let looked = 0;
    for (const name of names) {
      if (FOR_ITSELF.includes(name)) continue;
      const result = await perform(SERVICES[name] as never, world.deps, neighbour.caller, inputs[name]());
      expect(result, name).toMatchObject({ ok: false, error: { kind: 'notFound' } });
      looked += 1;
    }
    expect(looked).toBe(names.length - FOR_ITSELF.length);
    expect(await count()).toEqual(before);
    const page = await perform(SERVICES.searchWearers as never, world.deps, neighbour.caller, { search: '' });
    expect(JSON.stringify(page)).not.toContain(ids.wearerId);
  });
  it('cannot be referred to: the database refuses it', async () => {
    const other = await world.db.owner<{ id: string }[]>`select id from practice where id <> ${world.practiceId}`;
    await expect(
      world.db.owner`insert into draft (practice_id, visit_id, step, author_id, body, sequence, saved_at)
        values (${other[0]?.id ?? ''}, ${ids.visitId}, 'refraction', ${world.asha.personId}, '{}', 1, now())`,
    ).rejects.toThrow(/foreign key/);
  });
});

describe('signing in', () => {
  const account = 'teo-1';
  it('makes a session that stands for the person, and nothing else does', async () => {
    const done = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'here' });
    expect(done.ok).toBe(true);
    if (!done.ok) return;
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: true, value: { name: 'Teo Brannock' } });
    expect(await resume(world.deps, `${done.value.token}x`)).toMatchObject({ ok: false, error: { kind: 'signedOut' } });
    expect(await resume(world.deps, undefined)).toMatchObject({ ok: false });
    const [stored] = await world.db.owner<{ n: number }[]>`select count(*)::int as n from session where token_hash = ${done.value.token}`;
    expect(stored?.n).toBe(0);
  });
  it('a session left alone ends on the server too', async () => {
    const done = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'here' });
    if (!done.ok) throw new Error('sign in');
    world.move(9 * 60);
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: true });
    world.move(12 * 60);
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: false, error: { why: 'idle' } });
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: false });
  });
  it('says the same for an unknown account and a wrong password, and makes the sixth try wait', async () => {
    const wrong = await signIn(world.deps, { account, password: 'nope' }, { address: 'there' });
    const unknown = await signIn(world.deps, { account: 'nobody', password: 'nope' }, { address: 'there' });
    expect(wrong).toEqual(unknown);
    for (let i = 0; i < 4; i++) await signIn(world.deps, { account, password: 'nope' }, { address: 'there' });
    expect(await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'there' })).toMatchObject({ ok: false, error: { kind: 'throttled' } });
    world.move(301);
    expect((await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'there' })).ok).toBe(true);
  });
  it('a stranger cannot lock anybody out: not at another address, not at a known device, not their signature', async () => {
    const mine = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'practice' });
    if (!mine.ok) throw new Error('sign in');
    world.move(5);
    // From the guests' network, which shares the practice's address.
    for (let i = 0; i < 7; i++) await signIn(world.deps, { account, password: 'nope' }, { address: 'practice' });
    expect(await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'practice' })).toMatchObject({ error: { kind: 'throttled' } });
    expect((await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'practice', device: mine.value.device })).ok).toBe(true);
    expect((await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'elsewhere' })).ok).toBe(true);
    // Another person of the practice is not touched.
    expect((await signIn(world.deps, { account: 'merle-1', password: 'plain-sight' }, { address: 'practice' })).ok).toBe(true);
    world.move(400);
  });
  it('unlocking has tries of its own, and a device known for one person is not known for another', async () => {
    const mine = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'practice' });
    if (!mine.ok) throw new Error('sign in');
    world.move(5);
    const { device, token } = mine.value;
    for (let i = 0; i < 6; i++) await signIn(world.deps, { account, password: 'nope' }, { address: 'x', device });
    expect(await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'x', device })).toMatchObject({ error: { kind: 'throttled' } });
    expect((await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'x', device, session: token })).ok).toBe(true);
    for (let i = 0; i < 6; i++) await signIn(world.deps, { account: 'merle-1', password: 'nope' }, { address: 'y', device: `${device}x` });
    expect(await signIn(world.deps, { account: 'merle-1', password: 'plain-sight' }, { address: 'y', device: `${device}x` })).toMatchObject({
      error: { kind: 'throttled' },
    });
    world.move(400);
  });
  it('many guesses at once count one by one, and the wait said is the wait', async () => {
    const guesses = await Promise.all(Array.from({ length: 20 }, () => signIn(world.deps, { account, password: 'nope' }, { address: 'flood' })));
    const codes = guesses.map((g) => (g.ok ? 'in' : g.error.kind));
    expect(codes.filter((c) => c === 'invalid')).toHaveLength(5);
    expect(codes.filter((c) => c === 'throttled')).toHaveLength(15);
    world.move(100);
    const later = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'flood' });
    expect(later).toMatchObject({ error: { kind: 'throttled', retryAfterSeconds: 200 } });
    world.move(201);
    expect((await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'flood' })).ok).toBe(true);
  });
  it('a locked session is nobody’s, through a reload, until its person signs in again; a poll is no sign of life', async () => {
    const mine = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'here' });
    if (!mine.ok) throw new Error('sign in');
    await lock(world.deps, mine.value.token);
    expect(await resume(world.deps, mine.value.token)).toMatchObject({ ok: false, error: { kind: 'signedOut', why: 'locked' } });
    expect(await resume(world.deps, mine.value.token)).toMatchObject({ ok: false });
    const again = await signIn(world.deps, { account, password: 'plain-sight' }, { address: 'here', session: mine.value.token });
    if (!again.ok) throw new Error('sign in');
    // Only polls for longer than the idle time: the session has run out.
    const polls: boolean[] = [];
    for (let i = 0; i < 4; i++) {
      world.move(4 * 60);
      polls.push((await resume(world.deps, again.value.token, false)).ok);
    }
    expect(polls).toEqual([true, true, false, false]);
  });
  it('ending somebody’s access signs them out everywhere', async () => {
    const done = await signIn(world.deps, { account: 'joss-1', password: 'plain-sight' }, { address: 'here' });
    if (!done.ok) throw new Error('sign in');
    const staff = (await world.must('readStaff', {}, world.callers.admin)) as unknown as { staff: { account: string; personId: string; version: number }[] };
    const joss = staff.staff.find((s) => s.account === 'joss-1');
    await world.must('endStaff', { personId: joss?.personId, version: joss?.version }, world.callers.admin);
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: false, error: { kind: 'signedOut' } });
    expect((await signIn(world.deps, { account: 'joss-1', password: 'plain-sight' }, { address: 'here' })).ok).toBe(false);
  });
  it('a new password signs them out everywhere and replaces the old one', async () => {
    const done = await signIn(world.deps, { account: 'renny-1', password: 'plain-sight' }, { address: 'here' });
    if (!done.ok) throw new Error('sign in');
    await world.must('resetPassword', { personId: world.callers.coordinator.personId, password: 'another-plain-sight' }, world.callers.admin);
    expect(await resume(world.deps, done.value.token)).toMatchObject({ ok: false, error: { kind: 'signedOut' } });
    expect((await signIn(world.deps, { account: 'renny-1', password: 'plain-sight' }, { address: 'here' })).ok).toBe(false);
    expect((await signIn(world.deps, { account: 'renny-1', password: 'another-plain-sight' }, { address: 'here' })).ok).toBe(true);
  });
  it('an admin cannot end their own access, and never sees a password', async () => {
    expect(await world.do('endStaff', { personId: world.callers.admin.personId, version: 1 }, world.callers.admin)).toMatchObject({
      ok: false,
      error: { rule: 'cannotEndYourself' },
    });
    expect(JSON.stringify(await world.must('readStaff', {}, world.callers.admin))).not.toMatch(/argon2|hash/i);
  });
});

describe('the clock', () => {
  it('cannot be set where real work is done', async () => {
    expect(await perform(SERVICES.setClock, { ...world.deps, mode: 'production' }, world.asha, { frozenAt: null, offsetSeconds: 5 })).toMatchObject({
      ok: false,
      error: { rule: 'clockIsReal' },
    });
  });
});
