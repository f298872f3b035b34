import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, mayGoOn, readinessOf, type Eye, type SetLens } from '@/core';
import { useNow } from '../../../common/Clock';
import { useVisit } from '../../shell/VisitProvider';
import { corneaOf, firstOf, setsOf, triedOf, type SetLensOf } from './model';

/** Cornea of each eye, the practice's sets with what is proposed of each, and what is chosen to go on. */
export function useSets() {
  const t = useTranslations('diagnosticSet');
  const router = useRouter();
  const { record, eye, health, run, busy, hasLibrary } = useVisit();
  const now = new Date(useNow(5000)).toISOString();
  const cornea = { right: corneaOf(health.findings.right), left: corneaOf(health.findings.left) };
  const tried = { right: triedOf(record, eye('right')), left: triedOf(record, eye('left')) };
  const sets = setsOf(record, cornea, tried);
  const [picked, setPicked] = useState<Readonly<Partial<Record<Eye, string | null>>>>({});
  const [despite, setDespite] = useState('');
  const chosenOf = (e: Eye): SetLensOf | null => {
    const id = picked[e];
    if (id === null) return null;
    if (id === undefined) return cornea[e].kind === null ? null : firstOf(sets, e, tried[e]);
    return sets.flatMap((s) => s.lenses).find((l) => l.id === id) ?? null;
  };
  const right = chosenOf('right');
  const left = chosenOf('left');
  // One lens goes on one eye.
  const chosen = { right, left: left?.id === right?.id ? null : left };
  const going = EYES.filter((e) => chosen[e] !== null);
  const stateOf = (lens: SetLens) => readinessOf(lens, now);
  const putOn = async (): Promise<void> => {
    const input = { right: chosen.right?.id ?? null, left: chosen.left?.id ?? null, despiteReason: despite };
    const done = await run('putOnSetLenses', input, t('putOnDone'));
    if (done?.ok) router.push(`/visits/${record.visit.id}/on-eye`);
  };
  const say = (e: Eye, sign: 'cornea' | 'coneStage', value: string | number) => {
    const findings = [{ sign, value }];
    setPicked({});
    return run('recordFindings', { right: e === 'right' ? findings : [], left: e === 'left' ? findings : [] });
  };
  return {
    busy,
    hasLibrary,
    cornea,
    tried,
    sets,
    chosen,
    going,
    stateOf,
    despite,
    setDespite,
    ready: going.length > 0 && going.every((e) => chosen[e] !== null && mayGoOn(stateOf(chosen[e]))),
    pick: (e: Eye, id: string | null) => setPicked((was) => ({ ...was, [e]: id })),
    say,
    putOn,
  };
}
export type SetsHere = ReturnType<typeof useSets>;
