import { useRouter } from 'next/navigation';
import { useMemo } from 'react';
import { useTranslations } from 'use-intl';
import {
  addKnown,
  dominanceOf,
  demandOf,
  EYES,
  HELD_ANSWERS,
  isOrderable,
  nearState,
  nextChange,
  pairFile,
  parseAcuity,
  readOutlook,
  usualCm,
  wayFactsOf,
  type AcuityNotation,
  type ChangeOutlook,
  type Eye,
  type KeptOutlook,
  type NearTask,
  type PairLens,
  type TaskAt,
} from '@/core';
import type { DraftOf } from '../../shell/draftKeys';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';

/** Tasks of whoever has said none: far and near. */
const USUAL: readonly TaskAt[] = (['road', 'phone'] as const).map((task) => ({ task, cm: usualCm(task) }));
export const HELD_BY = [
  ['Plus', 0.25],
  ['Minus', -0.25],
] as const;
export const HELD_AT = ['Far', 'Near'] as const;

/** What the pair on the eyes comes to: its tasks, and the one change to make next. */
function verdictOf({ record, eye, lensOf, health, hasLibrary }: Pick<ReturnType<typeof useVisit>, 'record' | 'eye' | 'lensOf' | 'health' | 'hasLibrary'>) {
  const eyes = { right: eye('right'), left: eye('left') };
  const near = nearState(record.nearFindings);
  const tasks = near.tasks.length > 0 ? near.tasks : USUAL;
  const add = addKnown(record.facts.refractions, record.addsBefore);
  const { pupilRoomMm, pupilDimMm } = wayFactsOf(near, eyes, health, add?.addD ?? null);
  const file = pairFile({
    facts: record.facts,
    eyes,
    lenses: { lensOf, rows: record.lenses },
    pupilRoomMm,
    pupilDimMm,
    add,
    dominant: dominanceOf(near).eye,
    toricMade: hasLibrary && record.families.some((f) => f.geometry === 'toricMultifocal' && isOrderable(f, record.session.today)),
  });
  return {
    eyes,
    tasks,
    farTask: tasks.reduce((a, b) => (b.cm > a.cm ? b : a)),
    nearTask: tasks.reduce((a, b) => (b.cm < a.cm ? b : a)),
    input: 'no' in file ? null : file.input,
    verdict: 'no' in file ? null : nextChange(file.input),
    no: 'no' in file ? file.no : null,
    on: { rightLensOnEyeId: eyes.right.onEye?.rootId ?? '', leftLensOnEyeId: eyes.left.onEye?.rootId ?? '' },
  };
}

/** The same, reckoned once for what is recorded: a tenth of a second that no key may wait for. */
function useVerdict() {
  const { record, eye, lensOf, health, hasLibrary } = useVisit();
  return useMemo(() => verdictOf({ record, eye, lensOf, health, hasLibrary }), [record, eye, lensOf, health, hasLibrary]);
}
type Judged = ReturnType<typeof useVerdict>;

/** The eye that is covered, to find which one spoils it; null: both open. */
const coveredOf = (body: DraftOf<'nearVision'>): Eye | null => EYES.find((e) => e === body.covered) ?? null;

/** What is typed of the pair, as it is recorded. */
function typedOf(body: DraftOf<'nearVision'>, { tasks, farTask, nearTask }: Judged, notation: AcuityNotation) {
  const saidOf = (task: NearTask): string => body[`${task}Said`] ?? '';
  const vaOf = (task: NearTask): string => (body[`${task}Va`] ?? '').trim();
  const covered = coveredOf(body);
  const judged = tasks.flatMap(({ task, cm }) => {
    const read = parseAcuity(vaOf(task), notation);
    return saidOf(task) === ''
      ? []
      : [{ task, distanceCm: cm, satisfaction: Number(saidOf(task)), acuity: read.ok ? { logMar: read.value, typed: vaOf(task) } : null, covered }];
  });
  const held = EYES.flatMap((e) =>
    HELD_BY.flatMap(([sign, by]) =>
      HELD_AT.flatMap((at) => {
        const answer = HELD_ANSWERS.find((a) => a === body[`held${e}${sign}${at}`]);
        const of = at === 'Far' ? farTask : nearTask;
        return answer === undefined ? [] : [{ task: of.task, distanceCm: of.cm, eye: e, by, answer }];
      }),
    ),
  );
  const faulty = tasks.some(({ task }) => vaOf(task) !== '' && (!parseAcuity(vaOf(task), notation).ok || saidOf(task) === ''));
  return { judged, held, faulty };
}

/** Puts the changed lens on, after its forecast was kept. */
function useChange({ eyes, on }: Judged): (chosen: ChangeOutlook) => Promise<void> {
  const t = useTranslations('pairDesk');
  const router = useRouter();
  const { record, run } = useVisit();
  const specOf = (e: Eye, next: PairLens) => {
    const row = record.lenses[eyes[e].onEye?.current.lensId ?? ''];
    if (!row || row.baseCurveMm === null || row.diameterMm === null || (next.sphere === row.sphereD && next.add === row.addBand)) return null;
    const familyId = record.ofLenses.find((f) => f.code === row.familyCode)?.id ?? row.familyVersionId;
    return { familyId, sphere: next.sphere, cylinder: row.cylinderD, axis: row.axisDeg, add: next.add, baseCurve: row.baseCurveMm, diameter: row.diameterMm };
  };
  return async ({ change, pair }) => {
    const asked = change.kind === 'sphere' ? { kind: change.kind, eye: change.eye, by: change.by > 0 ? (0.25 as const) : (-0.25 as const) } : change;
    const kept = await run('keepPairChange', { ...on, change: asked });
    // A toric is another family: it is chosen where lenses are.
    if (kept?.ok && change.kind === 'toric') router.push(`/visits/${record.visit.id}/lens`);
    else if (kept?.ok) await run('putOnTrials', { right: specOf('right', pair.right), left: specOf('left', pair.left) }, t('putOn'));
  };
}

/** A pair judged with both eyes: what is typed, what is recorded, and the one change to make next. */
export function usePair() {
  const t = useTranslations('pairDesk');
  const { record, run, busy } = useVisit();
  const draft = useDraft('nearVision');
  const judged = useVerdict();
  const { on } = judged;
  const typed = typedOf(draft.body, judged, record.session.settings.acuity);
  return {
    ...judged,
    draft,
    change: useChange(judged),
    waiting: typed.judged.length + typed.held.length > 0,
    faulty: typed.faulty,
    blocked: busy || record.visit.closedAt !== null,
    covered: coveredOf(draft.body),
    /** What was foretold of a task before this pair was put on; null where nothing was. */
    foretoldOf: (cm: number): KeptOutlook | null =>
      record.facts.pairChanges
        .flatMap((c) => c.current ?? [])
        .filter((c) => c.rightLensOnEyeId !== on.rightLensOnEyeId || c.leftLensOnEyeId !== on.leftLensOnEyeId)
        .at(-1)
        ?.foretold.flatMap((text) => readOutlook(text) ?? [])
        .find((o) => Math.abs(o.vergence - demandOf(cm)) < 0.01) ?? null,
    recordedOf: (task: NearTask, covered: Eye | null = null) =>
      record.facts.taskSights
        .flatMap((c) => c.current ?? [])
        .filter((s) => s.task === task && s.covered === covered && s.rightLensOnEyeId === on.rightLensOnEyeId && s.leftLensOnEyeId === on.leftLensOnEyeId)
        .at(-1) ?? null,
    submit: async (): Promise<void> => {
      const done = await run('recordPairReading', { ...on, tasks: typed.judged, held: typed.held }, t('recorded'));
      if (done?.ok) draft.clear();
    },
  };
}
export type PairPage = ReturnType<typeof usePair>;
