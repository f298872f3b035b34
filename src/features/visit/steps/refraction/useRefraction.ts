import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, LIMITS, nearState, parseAdd, parseRefraction, powerOf, toCornealPlane, withinLimit, type Eye, type Refraction } from '@/core';
import { decisionOf } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { addsTyped, doubtsOf } from './model';
import { nearCmOf, nearCmText, anythingTyped, faultyField, refractionToRecord, type Typed } from './toRecord';

/** A near add is asked for from this many years before a practice counts people as presbyopes. */
const YEARS_BEFORE = 5;

/** The powers of both eyes as they stand, typed or recorded, and what they come to. */
function useTyped() {
  const { record, eye } = useVisit();
  const { settings } = record.session;
  const { age } = record.wearer;
  const draft = useDraft('refraction');
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const textOf = (e: Eye): string => draft.body[e] ?? '';
  const recorded = { right: eye('right').refraction?.current ?? null, left: eye('left').refraction?.current ?? null };
  const nearCm = nearCmOf(nearCmText({ body: draft.body, recorded }));
  const adds = addsTyped(draft.body, age, settings.addByAge, nearCm);
  const typed: Typed = { body: draft.body, recorded, age, addByAge: settings.addByAge, notation: settings.acuity };
  /** What the eye reads as now: being typed, else recorded. */
  const shown = (e: Eye): { power: Refraction; vertexMm: number } | null => {
    const read = parseRefraction(textOf(e));
    if (read.ok) return vertexFine ? { power: read.value, vertexMm } : null;
    const row = recorded[e];
    return row && { power: powerOf(row), vertexMm: row.vertexMm };
  };
  const now = { right: shown('right'), left: shown('left') };
  const cornealOf = (e: Eye): Refraction | null => now[e] && toCornealPlane(now[e].power, now[e].vertexMm);
  const given = EYES.some((e) => adds.text[e].trim() !== '' || (recorded[e]?.addD ?? null) !== null);
  return {
    draft,
    typed,
    adds,
    nearCm,
    nearCmText: nearCmText({ body: draft.body, recorded }),
    vertexText,
    vertexMm,
    vertexFine,
    textOf,
    shown,
    asCross: draft.body.asCross === 'yes',
    // Asked of everybody near the age; of others only where it is wanted or was recorded.
    addShown: age >= settings.presbyopiaAge - YEARS_BEFORE || draft.body.addOpen === 'yes' || given,
    needs: { right: cornealOf('right'), left: cornealOf('left') },
    addOf: (e: Eye): number | null => adds.value[e] ?? recorded[e]?.addD ?? null,
    doubts: doubtsOf(
      record,
      { right: now.right?.power ?? null, left: now.left?.power ?? null },
      { right: textOf('right'), left: textOf('left') },
      { right: recorded.right?.prismText ?? null, left: recorded.left?.prismText ?? null },
    ),
    typedNow: anythingTyped(typed),
    swapTyped: (): void => {
      const [right, left] = [textOf('right'), textOf('left')];
      draft.set('right', left);
      draft.set('left', right);
    },
  };
}

/** The powers of both eyes, and the command that records them. */
export function useRefraction() {
  const t = useTranslations('refraction');
  const router = useRouter();
  const { record, health, run } = useVisit();
  const [asked, setAsked] = useState(false);
  const powers = useTyped();
  const { draft, typed, adds, typedNow, vertexMm } = powers;
  // Once a history was asked, the kind of lens is decided before the lens.
  const onward = Object.keys(health.answers).length > 0 && decisionOf(record) === null ? 'kind' : 'lens';
  const nearAsked = record.wearer.age >= record.session.settings.presbyopiaAge && nearState(record.nearFindings).way === null;
  const goOn = (): void => router.push(`/visits/${record.visit.id}/${nearAsked ? 'near-vision' : onward}`);
  const submit = async (): Promise<void> => {
    setAsked(true);
    if (!EYES.every((e) => adds.text[e].trim() === '' || parseAdd(adds.text[e]).ok)) return;
    const recorded = EYES.some((e) => typed.recorded[e]);
    const fault = faultyField(typed) ?? (typedNow || recorded ? null : 'power-right');
    if (fault !== null) {
      document.getElementById(fault)?.focus();
      return;
    }
    if (typedNow) {
      const done = await run('recordRefraction', refractionToRecord(typed, vertexMm), t('recorded'));
      if (!done?.ok) return;
      draft.clear();
    }
    goOn();
  };
  return { ...powers, asked, submit, nearAsked };
}
export type Powers = ReturnType<typeof useRefraction>;
