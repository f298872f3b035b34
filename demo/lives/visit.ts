import { addMonths, careTopicsFor, topicsAgain, EYES, formatRefraction, type AnswerValue, type Eye, type VisitKind } from '../../src/core';
import type { FamilyWithBlocks } from '../../src/db/family';
import { must } from '../../src/lib/assert';
import { eachEye, overRefractionOf, VERTEX_MM, type Eyes, type LensForm } from './eyes';
import type { Account, Answer, Practice } from './practice';

/** A visit under way: each entry is made on the version that the one before left. */
export class Visit {
  private version = 1;
  private lots = 0;
  private constructor(
    private readonly practice: Practice,
    readonly id: string,
    private readonly by: Account,
  ) {}

  /** @param by the prescriber, or whoever is there for it */
  static async open(practice: Practice, by: Account, wearerId: string, kind: VisitKind, appointmentId: string | null): Promise<Visit> {
    const { visitId } = await practice.does(by, 'openVisit', { wearerId, kind, appointmentId });
    return new Visit(practice, String(visitId), by);
  }

  private async enters(by: Account, name: Parameters<Practice['does']>[1], input: object): Promise<Answer> {
    const done = await this.practice.does(by, name, { visitId: this.id, version: this.version, ...input });
    if (typeof done['version'] === 'number') this.version = done['version'];
    return done;
  }

  async history(answers: Readonly<Record<string, AnswerValue>>, by: Account = 'joss'): Promise<void> {
    await this.enters(by, 'recordHistory', { answers: Object.entries(answers).map(([question, value]) => ({ question, value, note: null })) });
    this.practice.pass(240);
  }

  /** The eyes at the slit lamp, with stain. @param grades of both eyes, or what differs in the right one */
  async eyeHealth(grades: Readonly<Record<string, number | string>>, right: Readonly<Record<string, number | string>> = {}): Promise<void> {
    const list = (of: Readonly<Record<string, number | string>>) => Object.entries(of).map(([sign, value]) => ({ sign, value }));
    await this.enters(this.by, 'recordFindings', { right: list({ ...grades, ...right }), left: list(grades), rightSight: [], leftSight: [] });
    this.practice.pass(300);
  }

  async refraction(eyes: Eyes, add: number | null): Promise<void> {
    const typed = eachEye((eye) => formatRefraction(eyes[eye].glasses));
    const sees = { logMar: 0, typed: '20/20' };
    const addition = add === null ? null : `+${add.toFixed(2)}`;
    await this.enters(this.by, 'recordRefraction', {
      ...typed,
      vertexMm: VERTEX_MM,
      rightAdd: addition,
      leftAdd: addition,
      addSource: 'measured',
      nearCm: add === null ? null : 40,
      rightAcuity: sees,
      leftAcuity: sees,
    });
    this.practice.pass(420);
  }

  /** The kind of lens: as it is recommended, else with a reason. */
  async kind(modality: string, reason: string): Promise<void> {
    await this.enters(this.by, 'decideKind', { modality, wear: 'day', reason });
  }

  /** Trials on both eyes, out of the drawer; then they settle. @param perEye how many of each are to be in the drawer */
  async trials(lenses: Readonly<Record<Eye, LensForm>>, family: FamilyWithBlocks, perEye: number): Promise<void> {
    for (const eye of EYES) if ((await this.lies(lenses[eye])) < perEye * 2) await this.restocks(lenses[eye], family);
    await this.enters(this.by, 'putOnTrials', { ...lenses, despiteReason: '' });
    this.practice.pass(family.settleMinutes * 60 + 60);
  }

  /** What runs low is received anew: a month of daily lenses, a handful of others. */
  private async restocks(lens: LensForm, family: FamilyWithBlocks): Promise<void> {
    this.lots += 1;
    const lot = `${family.code.slice(0, 2).toUpperCase()}${this.practice.today.slice(2, 4)}${this.id.slice(0, 4).toUpperCase()}${this.lots}`;
    const expiresOn = addMonths(this.practice.today, 40);
    await this.practice.does('joss', 'receiveTrials', { lens, lot, expiresOn, count: family.modality === 'daily' ? 30 : 6, despiteReason: '' });
  }

  private async lies(lens: LensForm): Promise<number> {
    const [row] = await this.practice.sql<{ n: number }[]>`
      select coalesce(sum(s.count), 0)::int as n from trial_stock s join lens l on l.id = s.lens_id
      where l.family_version_id = ${lens.familyId} and (l.sphere_d, l.cylinder_d, l.axis_deg) = (${lens.sphere}, ${lens.cylinder}, ${lens.axis})
        and l.add_band is not distinct from ${lens.add} and s.expires_on > ${this.practice.today}`;
    return row?.n ?? 0;
  }

  /** Lenses of a diagnostic set on both eyes. */
  async setLenses(ids: Readonly<Record<Eye, string>>): Promise<void> {
    await this.enters(this.by, 'putOnSetLenses', { ...ids, despiteReason: 'no other lens masks these corneas' });
  }

  /** What is read of lenses of a set: fit and mark first, the sphere once they have settled. */
  async setReading(read: {
    readonly fit?: string;
    readonly blinks?: Readonly<Record<Eye, readonly number[]>>;
    readonly over?: string;
    readonly acuity?: { readonly logMar: number; readonly typed: string };
  }): Promise<void> {
    const on = await this.onEye();
    const of = (eye: Eye) => ({
      lensOnEyeId: on[eye],
      fit: read.fit ?? null,
      findings: read.fit ? [{ sign: 'markUpGaze', value: 'steady' }] : [{ sign: 'acuityLens', value: 0.3, typed: '20/40' }],
      blinks: (read.blinks?.[eye] ?? []).map((rotationLeft) => ({ rotationLeft })),
      overRefraction: read.over ?? null,
      overAcuity: read.acuity ?? null,
      plusHalf: read.over ? 'worse' : null,
      vertexMm: VERTEX_MM,
    });
    await this.enters(this.by, 'recordOnEye', { right: of('right'), left: of('left'), both: null });
    this.practice.pass(300);
  }

  /** The lens on each eye now. */
  private async onEye(): Promise<Record<Eye, string>> {
    const rows = await this.practice.sql<{ eye: Eye; id: string }[]>`
      select distinct on (eye) eye, root_id as id from lens_on_eye where visit_id = ${this.id} order by eye, recorded_at desc`;
    return eachEye(
      (eye) =>
        must(
          rows.find((r) => r.eye === eye),
          'lens on eye',
        ).id,
    );
  }

  /** Lenses that were handed over are on the eyes, since so many hours. */
  async worn(wearerId: string, hoursWorn: number): Promise<void> {
    const rows = await this.practice.sql<{ eye: Eye; id: string }[]>`
      select distinct on (eye) eye, lens_id as id from hand_over where wearer_id = ${wearerId} order by eye, recorded_at desc`;
    const of = (eye: Eye): object | null => {
      const lensId = rows.find((r) => r.eye === eye)?.id;
      return lensId === undefined ? null : { answer: 'yes', lensId };
    };
    await this.enters(this.by, 'answerWorn', {
      right: of('right'),
      left: of('left'),
      since: { time: this.practice.clockBefore(hoursWorn) },
      how: 'wearerSaid',
    });
  }

  /** Fit, turn and over-refraction of both lenses. @param strays how far each blink's mark lies from the mean, degrees */
  async reading(eyes: Eyes, lenses: Readonly<Record<Eye, LensForm>>, strays: number, comfort: number): Promise<void> {
    const on = await this.onEye();
    const of = (eye: Eye) => ({
      lensOnEyeId: on[eye],
      fit: 'fits',
      findings: [
        { sign: 'movement', value: 0.3 },
        { sign: 'pushUp', value: 50 },
        { sign: 'coverage', value: 'full' },
        { sign: 'comfort', value: comfort },
      ],
      blinks: lenses[eye].cylinder === 0 ? [] : [0, -1, 1].map((way) => ({ rotationLeft: eyes[eye].turn + way * strays })),
      overRefraction: overRefractionOf(eyes[eye], lenses[eye]),
      overAcuity: { logMar: 0, typed: '20/20' },
      plusHalf: 'worse',
      vertexMm: VERTEX_MM,
    });
    await this.enters(this.by, 'recordOnEye', { right: of('right'), left: of('left'), both: null });
    this.practice.pass(360);
  }

  /** The teacher's hour: two on and two off of each eye, a miss on the way, acuity, all topics said back and some once more. */
  async lesson(daily: boolean, handler: string, misses: number): Promise<void> {
    if (!daily) await this.namesCare();
    if (handler !== '') await this.enters('asha', 'instructLesson', { what: 'helper', text: handler, why: 'child' });
    const { lessonId } = await this.enters('joss', 'startLesson', { handler });
    const topics = careTopicsFor({ singleUse: daily });
    for (const topic of topics) await this.enters('joss', 'recordTopic', { lessonId, topic });
    this.practice.pass(600);
    for (let i = 0; i < misses; i++) {
      await this.enters('joss', 'recordAttempt', { lessonId, eye: 'right', move: 'off', worked: false, unaided: true, miss: 'blinked' });
      this.practice.pass(120);
    }
    for (const eye of EYES)
      for (const move of ['off', 'on', 'off', 'on']) {
        await this.enters('joss', 'recordAttempt', { lessonId, eye, move, worked: true, unaided: true, miss: null });
        this.practice.pass(150);
      }
    for (const eye of EYES) await this.enters('joss', 'recordLessonSight', { lessonId, eye, acuity: { logMar: 0, typed: '20/20' } });
    await this.enters('joss', 'recordTopicsAgain', { lessonId, topics: topicsAgain(topics) });
    await this.enters('joss', 'signOffLesson', { lessonId, unbookedReason: 'told to book at the desk' });
  }

  /** The care system that most begin with. */
  private async namesCare(): Promise<void> {
    const [product] = await this.practice.sql<{ productId: string }[]>`
      select product_id as "productId" from care_product where system = 'multipurpose' and not ended order by name limit 1`;
    await this.enters('asha', 'prescribeCare', { productId: must(product, 'a care product').productId, chosenFor: 'first' });
  }

  /** The trials go home, the one on the eye and others of its lot, as far as it has them. */
  async handsOver(perEye: number, experienceNote: string): Promise<void> {
    const on = await this.onEye();
    const boxes = await this.practice.sql<{ id: string; stockId: string; lot: string; expiresOn: string; count: number }[]>`
      select e.root_id as id, s.id as stock_id, e.lot, e.expires_on, s.count from lens_on_eye e join trial_stock s on s.id = e.trial_stock_id where e.visit_id = ${this.id}`;
    // Both eyes may wear out of one box.
    const left = new Map(boxes.map((b) => [b.stockId, b.count]));
    const of = (eye: Eye) => {
      const box = must(
        boxes.find((b) => b.id === on[eye]),
        'box',
      );
      const inBox = left.get(box.stockId) ?? 0;
      const more = Math.min(perEye - 1, inBox);
      left.set(box.stockId, inBox - more);
      return { lensOnEyeId: on[eye], lot: box.lot, expiresOn: box.expiresOn, lensCount: 1 + more };
    };
    await this.enters('joss', 'handOver', { right: of('right'), left: of('left'), experienceNote });
  }

  /** Signed for a year. @param waitNote why it does not wait for an aftercare */
  async signs(order: Readonly<Record<Eye, LensForm>>, daysPerWeek: number, password: string, waitNote = ''): Promise<string> {
    const on = await this.onEye();
    const of = (eye: Eye) => ({ mode: 'final', lens: order[eye], triedLensOnEyeId: on[eye] });
    const { prescriptionId } = await this.enters(this.by, 'sign', {
      right: of('right'),
      left: of('left'),
      password,
      expiresOn: addMonths(this.practice.today, 12),
      waitNote,
      daysPerWeek,
      overrides: [],
    });
    return String(prescriptionId);
  }

  async orders(prescriptionId: string, packs: number, by: Account): Promise<string> {
    const { orderId } = await this.enters(by, 'placeOrder', {
      requestKey: crypto.randomUUID(),
      prescriptionId,
      rightPacks: packs,
      leftPacks: packs,
      pastExpiryNote: '',
    });
    return String(orderId);
  }

  /** What lies here goes home, at the front desk. */
  async collects(orderId: string, experienceNote: string): Promise<void> {
    const receipts = await this.practice.sql<{ id: string }[]>`
      select r.id from order_receipt r join order_line l on l.id = r.order_line_id where l.order_id = ${orderId}`;
    await this.enters(this.by, 'handOverBoxes', { orderId, receiptIds: receipts.map((r) => r.id), identityAsked: true, experienceNote });
  }

  /** Referred the same day for what stops lenses, with all its steps; what was heard is acknowledged. */
  async refers(): Promise<void> {
    const [heard] = await this.practice.sql<{ id: string }[]>`
      select id from history_answer where visit_id = ${this.id} and question = 'danger' order by sequence desc limit 1`;
    await this.enters(this.by, 'acknowledgeAlert', { answerId: heard?.id });
    const stops = await this.practice.sql<{ id: string }[]>`select id from safety_stop where visit_id = ${this.id} order by opened_at desc, rule`;
    await this.enters(this.by, 'openReferral', { stopId: stops[0]?.id });
    const [referral] = await this.practice.sql<{ id: string }[]>`select id from referral where visit_id = ${this.id}`;
    for (const step of ['lensOff', 'phoned', 'printed', 'leftWithLetter']) await this.enters(this.by, 'recordReferralStep', { referralId: referral?.id, step });
  }

  async closes(): Promise<void> {
    await this.enters(this.by, 'closeVisit', {});
  }
}
