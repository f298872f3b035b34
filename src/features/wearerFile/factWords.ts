import { useTranslations } from 'use-intl';
import { lensSign, sign, type FactKind } from '@/core';
import { formatDay } from '@/i18n/format';
import { useWordsOf } from '@/i18n/wordsOf';
import { joined, list, numeric, powerOf, text, type Data } from './data';
import type { LensWords } from './lensWords';
import { useNearWords } from './nearWords';

/** Facts of visits in words. */
export function useFactWords(lenses: LensWords): Readonly<Record<FactKind, (d: Data) => string>> {
  const t = useTranslations('file');
  const of = useWordsOf('file');
  const signs = useWordsOf('signs');
  const lensSigns = useWordsOf('lensSigns');
  const aftercare = useWordsOf('aftercare');
  const topics = useWordsOf('lesson');
  const signWords = (d: Data, name: (id: string) => string, word: (id: string, value: string) => string): string => {
    const id = text(d['sign']);
    const value = d['typedText'] ?? d['numberValue'];
    return t('seen', { sign: name(id), value: value === null || value === undefined ? word(id, text(d['wordValue'])) : text(value) });
  };
  const saidWords = (d: Data): string => {
    const id = text(d['question']);
    const group = { trouble: 'trouble', solutionUsed: 'solutions', glasses: 'glassesStates', saidBack: 'topics' }[id];
    const said = list(d['said']).map((s) => (group === undefined || s.includes('-') ? s : aftercare(`${group}.${s}`)));
    return t('seen', { sign: aftercare(id === 'trouble' ? 'reported' : id), value: said.join(', ') });
  };
  const turnWords = (d: Data): string => {
    const left = numeric(d['rotationLeftDeg']);
    return t('turn', { deg: Math.abs(left), side: left > 0 ? 'left' : left < 0 ? 'right' : 'straight' });
  };
  const measured = (d: Data): string => (d['acuityTyped'] ? t('with', { power: powerOf(d), acuity: text(d['acuityTyped']) }) : powerOf(d));
  return {
    refraction: measured,
    overRefraction: measured,
    lensOnEye: lenses.box,
    handOver: lenses.box,
    fit: (d) => of(`fits.${text(d['verdict'])}`),
    rotation: turnWords,
    lensFinding: (d) =>
      signWords(
        d,
        (id) => (lensSign(id) ? lensSigns(`${id}.name`) : id),
        (id, value) => (lensSign(id) ? lensSigns(`${id}.o.${value}`) : value),
      ),
    finding: (d) =>
      signWords(
        d,
        (id) => (sign(id) ? signs(id) : id),
        (_id, value) => signs(`words.${value}`),
      ),
    acuityBoth: (d) => text(d['acuityTyped']),
    eyeAcuity: (d) => t('seen', { sign: of(`ways.${text(d['way'])}`), value: text(d['acuityTyped']) }),
    cornealLesion: (d) => t('mm', { kind: of(`lesions.${text(d['kind'])}`), long: numeric(d['longMm']).toFixed(1), across: numeric(d['acrossMm']).toFixed(1) }),
    lessonAttempt: (d) => t('attempt', { move: text(d['move']), worked: d['worked'] === true ? 'yes' : 'no' }),
    lessonWay: (d) => of(`hands.${text(d['hand'])}`),
    lessonTurn: (d) => joined(of(`turns.${text(d['turn'])}`), text(d['note'])),
    lessonSight: (d) => text(d['acuityTyped']),
    lessonTopic: (d) => topics(`topic.${text(d['topic'])}.name`),
    ...useNearWords(),
    lessonInstruction: (d) => text(d['text']),
    careSystem: (d) => joined(text(d['productName']), of(`careFor.${text(d['chosenFor'])}`), text(d['note'])),
    wornAnswer: (d) => (d['lensId'] ? t('seen', { sign: of(`worn.${text(d['answer'])}`), value: lenses.name(d['lensId']) }) : of(`worn.${text(d['answer'])}`)),
    aftercareAnswer: saidWords,
    aftercareEnd: (d) => joined(aftercare(`outcome.${text(d['outcome'])}`), text(d['note'])),
    adverseEvent: (d) => `${aftercare(`event.${text(d['event'])}`)}; ${lenses.box(d)}`,
    returnToWear: (d) => formatDay(text(d['aftercareOn'])),
  };
}
