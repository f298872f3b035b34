import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import { EYES, parseAcuity, type AcuityWay, type CornealLesion, type CornealLesionFact, type Eye, type LesionKind, type QuestionId, type SignId } from '@/core';
import { useDraft, type Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { usePresses } from '../../shell/usePresses';
import { freshLesion, placingOf } from './model';

interface Pressed {
  readonly id: string;
  readonly send: () => Promise<boolean>;
}
const NONE = { right: [], left: [] };

type Kept = (done: Promise<{ readonly ok: boolean } | null>) => Promise<boolean>;
const kept: Kept = async (done) => (await done)?.ok === true;

/** What is being drawn on the corneas, and what is kept of it. */
function useLesions(draft: Draft<'redEye'>, press: (p: Pressed) => void) {
  const t = useTranslations('redEye');
  const { run } = useVisit();
  const place = (eye: Eye, lesion: CornealLesion | null): void => {
    draft.set(`${eye}Kind`, lesion?.kind ?? '');
    if (!lesion) return;
    draft.set(`${eye}Nasal`, String(lesion.nasalMm));
    draft.set(`${eye}Up`, String(lesion.upMm));
    draft.set(`${eye}Long`, String(lesion.longMm));
    draft.set(`${eye}Across`, String(lesion.acrossMm));
  };
  const keepLesion = (eye: Eye): void => {
    const lesion = placingOf(draft.body, eye);
    if (!lesion) return;
    const send = async (): Promise<boolean> => {
      const done = await kept(run('recordLesion', { eye, ...lesion }, t('kept')));
      if (done) place(eye, null);
      return done;
    };
    press({ id: `${eye} lesion`, send });
  };
  const remove = (lesion: CornealLesionFact): void =>
    press({
      id: lesion.id,
      send: () => kept(run('correct', { kind: 'cornealLesion', factId: lesion.id, reason: t('removeReason'), value: null }, t('removed'))),
    });
  return {
    placing: { right: placingOf(draft.body, 'right'), left: placingOf(draft.body, 'left') },
    place,
    begin: (eye: Eye, kind: LesionKind): void => {
      const now = placingOf(draft.body, eye);
      place(eye, now ? { ...now, kind } : freshLesion(kind));
    },
    keepLesion,
    remove,
  };
}

/** What is seen and said of a red eye: each press is kept at once, so that nothing is lost when the wearer has to go. */
export function useRedEye() {
  const t = useTranslations('redEye');
  const router = useRouter();
  const { record, health, busy, run } = useVisit();
  const draft = useDraft('redEye');
  const { press } = usePresses<Pressed>(busy, (p) => p.send(), 'goOn');
  const drawing = useLesions(draft, press);
  const closed = record.visit.closedAt !== null;
  const { acuity } = record.session.settings;
  const stops = record.health.stops.filter((s) => s.endedAt === null);
  const referred = record.health.referrals.some((r) => stops.some((s) => s.id === r.stopId));

  const see = (eye: Eye, sign: SignId, value: number | string): void =>
    press({ id: `${eye} ${sign} ${value}`, send: () => kept(run('recordFindings', { ...NONE, [eye]: [{ sign, value }] }, t('kept'))) });
  const say = (question: QuestionId, value: string): void =>
    press({ id: `${question} ${value}`, send: () => kept(run('recordHistory', { answers: [{ question, value, note: null }] }, t('kept'))) });
  const sayTyped = (question: 'onset' | 'solution'): void => {
    const value = (draft.body[question] ?? '').trim();
    if (closed || value === '') return;
    const send = async (): Promise<boolean> => {
      const done = await kept(run('recordHistory', { answers: [{ question, value, note: null }] }, t('kept')));
      if (done) draft.set(question, '');
      return done;
    };
    press({ id: `${question} ${value}`, send });
  };
  /** What was typed goes once it is kept, and not before. */
  const keepSight = (eye: Eye, way: AcuityWay): void => {
    const typed = (draft.body[`${eye}:${way}`] ?? '').trim();
    const read = parseAcuity(typed, acuity);
    if (closed || !read.ok) return;
    const send = async (): Promise<boolean> => {
      const done = await kept(run('recordFindings', { ...NONE, [`${eye}Sight`]: [{ way, acuity: { logMar: read.value, typed } }] }, t('kept')));
      if (done) draft.set(`${eye}:${way}`, '');
      return done;
    };
    press({ id: `${eye} ${way}`, send });
  };
  const letter = async (): Promise<void> => {
    const [first] = stops;
    if (!first) return;
    const done = referred || (await kept(run('openReferral', { stopId: first.id }, t('letterOpened'))));
    if (done) router.push(`/visits/${record.visit.id}/print/referral`);
  };
  return {
    draft,
    closed,
    health,
    stops,
    referred,
    threatened: EYES.filter((eye) => health.threats[eye].length > 0),
    ...drawing,
    see,
    say,
    sayTyped,
    keepSight,
    letter,
  };
}
export type RedEye = ReturnType<typeof useRedEye>;
