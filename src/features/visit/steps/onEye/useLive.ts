import { EYES, LIMITS, linesLostTogether, parseAcuity, settleOf, sightDoubts, sightOfBoth, withinLimit, type Eye } from '@/core';
import { useNow } from '../../../common/Clock';
import { secondsSince } from '../../../common/elapsed';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useInstrument } from './instrument';
import { hasReading, liveEye, readOn, type LiveEye } from './model';
import { livePatterns } from './patterns';

/** Both eyes as they stand on this screen: what is recorded, with what is being typed on top. */
export function useLive() {
  const { record, eye, lensOf } = useVisit();
  const draft = useDraft('onEye');
  const { instrument, choose: chooseInstrument } = useInstrument(record.instruments);
  const moment = useNow(5000);
  const { settings } = record.session;
  const closed = record.visit.closedAt !== null;
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const early = (e: Eye): boolean => {
    const row = eye(e).onEye?.current;
    return row !== undefined && secondsSince(row.putOnAt, moment) < settleOf(row.lensId ? record.lenses[row.lensId] : undefined).fit * 60;
  };
  const liveOf = (e: Eye): LiveEye =>
    liveEye({
      record,
      state: eye(e),
      eye: e,
      body: draft.body,
      vertexMm: vertexFine ? vertexMm : settings.vertexMm,
      instrument,
      lensOf,
      early: early(e),
    });
  const live = { right: liveOf('right'), left: liveOf('left') };
  const usable = (e: Eye): boolean => live[e].state.onEye !== null && live[e].state.takenOffAt === null && live[e].state.choice === null && !closed;
  return {
    draft,
    live,
    closed,
    instrument,
    chooseInstrument,
    vertexText,
    vertexMm,
    vertexFine,
    early,
    usable,
    hasMark: (e: Eye): boolean => usable(e) && live[e].lens !== null && live[e].lens.markLayout !== 'none',
    on: (e: Eye) => readOn(instrument, live[e].lens),
    patterns: livePatterns(record, live, lensOf),
    doubts: {
      right: sightDoubts(live.right.acuities, live.right.over?.power ?? null),
      left: sightDoubts(live.left.acuities, live.left.over?.power ?? null),
    },
    typed: EYES.filter((e) => hasReading(draft.body, e)),
  };
}
export type Live = ReturnType<typeof useLive>;

/** What both eyes see together through the lenses on them. */
export function useSightTogether({ draft, live, usable }: Live) {
  const { record } = useVisit();
  const text = draft.body.bothVa ?? '';
  const typed = parseAcuity(text, record.session.settings.acuity);
  const ids = { right: live.right.state.onEye?.rootId ?? null, left: live.left.state.onEye?.rootId ?? null };
  const together = sightOfBoth(record.facts.acuitiesBoth, ids);
  // Both lenses can be read through: otherwise nothing seen together is recorded.
  const bothOn = EYES.every(usable);
  const seen = typed.ok ? typed.value : (together?.current.acuityLogMar ?? null);
  return {
    bothOn,
    together,
    lostTogether: linesLostTogether(seen, { right: live.right.acuities, left: live.left.acuities }),
    waiting: text.trim() !== '',
    faulty: text.trim() !== '' && (!typed.ok || !bothOn),
    toRecord:
      typed.ok && ids.right !== null && ids.left !== null
        ? { rightLensOnEyeId: ids.right, leftLensOnEyeId: ids.left, acuity: { logMar: typed.value, typed: text.trim() } }
        : null,
  };
}
