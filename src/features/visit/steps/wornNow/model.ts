import {
  handedFor,
  lastHandOver,
  lastsUntil,
  latest,
  parseTime,
  provenance,
  wornChain,
  wornDoubts,
  type Eye,
  type HandOverFact,
  type ProvenanceNode,
  type WornAnswer,
  type WornAnswerFact,
  type WornDoubt,
} from '@/core';
import type { VisitRecord } from '../../shell/visitData';
import { wornDoubtsOf } from '../../shell/worn';

/** Answers by the key that gives them; `yes` is the one that is mostly true. */
export const ANSWER_KEYS: Readonly<Record<WornAnswer, string>> = {
  yes: 'Y',
  oldPair: 'O',
  mixed: 'M',
  boughtElsewhere: 'E',
  someoneElses: 'S',
  lost: 'X',
  glasses: 'G',
};
/** Answers after which no lens is on the eye: nobody needs to know since when. */
export const isBare = (answer: WornAnswer): boolean => answer === 'lost' || answer === 'glasses';

/** One eye as the page asks about it. */
export interface AskedEye {
  readonly eye: Eye;
  readonly worn: ProvenanceNode | null;
  readonly chain: readonly ProvenanceNode[];
  /** What was answered at this visit. */
  readonly said: WornAnswerFact | null;
  /** Other lenses that were handed over for it, the newest first. */
  readonly older: readonly HandOverFact[];
  /** Last day that what was handed over could be worn. */
  readonly until: string | null;
  readonly given: HandOverFact | null;
}
export interface Asking {
  readonly eyes: Readonly<Record<Eye, AskedEye>>;
  readonly doubts: readonly WornDoubt[];
  readonly daysPerWeek: number;
}

export function askingOf(record: VisitRecord): Asking {
  const of = wornDoubtsOf(record);
  const { file, daysPerWeek } = of;
  const one = (eye: Eye): AskedEye => {
    const { worn } = provenance(file, eye);
    const given = worn?.kind === 'handedOver' ? lastHandOver(file.handOvers, eye) : null;
    return {
      eye,
      worn,
      chain: wornChain(file, eye),
      said: latest(record.wornAnswers, (a) => a.eye === eye && a.visitId === record.visit.id)?.current ?? null,
      older: handedFor(eye, record.handOvers).filter((h) => h.lensId !== worn?.lensId || h.lot !== worn.lot),
      until: given && lastsUntil(of, eye),
      given,
    };
  };
  const eyes = { right: one('right'), left: one('left') };
  return { eyes, doubts: wornDoubts(of), daysPerWeek };
}

/** Which answers can be given of an eye: what is not on record cannot be confirmed. */
export const answersFor = ({ eyes }: Asking, eye: Eye): readonly WornAnswer[] =>
  (Object.keys(ANSWER_KEYS) as WornAnswer[]).filter((answer) => {
    if (answer === 'yes') return eyes[eye].worn !== null;
    if (answer === 'mixed') return eyes.right.worn !== null && eyes.left.worn !== null && eyes.right.worn.lensId !== eyes.left.worn.lensId;
    return answer !== 'oldPair' || eyes[eye].older.length > 0;
  });

/** Whether a time can be read as typed. */
export const isTime = (text: string): boolean => parseTime(text).ok;
