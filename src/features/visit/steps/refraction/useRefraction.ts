import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, LIMITS, parseAcuity, parseAdd, parseRefraction, powerOf, toCornealPlane, withinLimit, type Eye, type Refraction } from '@/core';
import { powerReady } from '../../../common/PowerField';
import { decisionOf } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { addsTyped, doubtsOf } from './model';

/** A near add is asked for from this many years before a practice counts people as presbyopes. */
const YEARS_BEFORE = 5;

/** The powers of both eyes as typed and as recorded, what they come to, and the command that records them. */
export function useRefraction() {
  const t = useTranslations('refraction');
  const router = useRouter();
  const { record, eye, health, run } = useVisit();
  const { settings } = record.session;
  const draft = useDraft('refraction');
  const [asked, setAsked] = useState(false);
  const vertexText = draft.body.vertex ?? String(settings.vertexMm);
  const vertexMm = Number(vertexText.replace(',', '.'));
  const vertexFine = vertexText.trim() !== '' && withinLimit(vertexMm, LIMITS.vertexMm);
  const textOf = (e: Eye): string => draft.body[e] ?? '';
  const vaText = (e: Eye): string => draft.body[`${e}Va`] ?? '';
  const adds = addsTyped(draft.body, record.wearer.age);
  const addsRead = EYES.every((e) => adds.text[e].trim() === '' || parseAdd(adds.text[e]).ok);
  const asCross = draft.body.asCross === 'yes';
  // Asked of everybody near the age; of others only where it is wanted or was recorded.
  const addShown =
    record.wearer.age >= settings.presbyopiaAge - YEARS_BEFORE ||
    draft.body.addOpen === 'yes' ||
    EYES.some((e) => adds.text[e].trim() !== '' || (eye(e).refraction?.current.addD ?? null) !== null);

  /** What the eye reads as now: being typed, else recorded. */
  const shown = (e: Eye): { power: Refraction; vertexMm: number } | null => {
    const read = parseRefraction(textOf(e));
    if (read.ok) return vertexFine ? { power: read.value, vertexMm } : null;
    const recorded = eye(e).refraction;
    return recorded ? { power: powerOf(recorded.current), vertexMm: recorded.current.vertexMm } : null;
  };

  const now = { right: shown('right'), left: shown('left') };
  const cornealOf = (e: Eye): Refraction | null => now[e] && toCornealPlane(now[e].power, now[e].vertexMm);
  const needs = { right: cornealOf('right'), left: cornealOf('left') };
  const addOf = (e: Eye): number | null => adds.value[e] ?? eye(e).refraction?.current.addD ?? null;
  /** What would be sent for an eye: typed, or the recorded power again where only its add is new. */
  const sentOf = (e: Eye): string => {
    const recordedText = eye(e).refraction?.current.typedText ?? '';
    return textOf(e).trim() !== '' ? textOf(e) : adds.text[e].trim() !== '' || vaText(e).trim() !== '' ? recordedText : '';
  };
  /** What goes with a power that is sent again unchanged: its own add and sight stay, unless typed anew. */
  const kept = (e: Eye) => (textOf(e).trim() === '' ? eye(e).refraction?.current : undefined);
  const addSent = (e: Eye): string | null => {
    if (sentOf(e) === '') return null;
    const before = kept(e)?.addD ?? null;
    return adds.text[e].trim() !== '' ? adds.text[e] : before === null ? null : `+${before.toFixed(2)}`;
  };
  const acuitySent = (e: Eye) => {
    if (sentOf(e) === '') return null;
    const read = parseAcuity(vaText(e), settings.acuity);
    if (read.ok) return { logMar: read.value, typed: vaText(e).trim() };
    const before = kept(e);
    return before && before.acuityLogMar !== null && before.acuityTyped !== null ? { logMar: before.acuityLogMar, typed: before.acuityTyped } : null;
  };
  const addSourceSent = EYES.some((e) => adds.text[e].trim() !== '')
    ? adds.source
    : (EYES.map((e) => kept(e)?.addSource).find((s) => s !== null && s !== undefined) ?? adds.source);
  const typedNow = EYES.some((e) => sentOf(e) !== '');
  const doubts = doubtsOf(
    record,
    { right: now.right?.power ?? null, left: now.left?.power ?? null },
    { right: textOf('right'), left: textOf('left') },
    { right: eye('right').refraction?.current.prismText ?? null, left: eye('left').refraction?.current.prismText ?? null },
  );
  const swapTyped = (): void => {
    const [right, left] = [textOf('right'), textOf('left')];
    draft.set('right', left);
    draft.set('left', right);
  };

  /** Once a history was asked, the kind of lens is decided before the lens. */
  const onward = Object.keys(health.answers).length > 0 && decisionOf(record) === null ? 'kind' : 'lens';

  const submit = async (): Promise<void> => {
    setAsked(true);
    if (!addsRead) return;
    const badVa = EYES.find((e) => vaText(e).trim() !== '' && !parseAcuity(vaText(e), settings.acuity).ok);
    if (badVa) {
      document.getElementById(`va-${badVa}`)?.focus();
      return;
    }
    const sent = EYES.filter((e) => sentOf(e) !== '');
    const typed = EYES.filter((e) => textOf(e).trim() !== '');
    if (sent.length === 0) {
      if (EYES.some((e) => eye(e).refraction)) router.push(`/visits/${record.visit.id}/${onward}`);
      else document.getElementById('power-right')?.focus();
      return;
    }
    const bad = typed.find((e) => !powerReady(textOf(e), draft.body[`${e}Kept`] ?? null));
    if (bad) {
      document.getElementById(`power-${bad}`)?.focus();
      return;
    }
    const done = await run(
      'recordRefraction',
      {
        right: sentOf('right') || null,
        left: sentOf('left') || null,
        vertexMm,
        rightAdd: addSent('right'),
        leftAdd: addSent('left'),
        addSource: addSourceSent,
        rightAcuity: acuitySent('right'),
        leftAcuity: acuitySent('left'),
      },
      t('recorded'),
    );
    if (done?.ok) {
      draft.clear();
      router.push(`/visits/${record.visit.id}/${onward}`);
    }
  };

  return {
    draft,
    asked,
    vertexText,
    vertexMm,
    vertexFine,
    textOf,
    asCross,
    addShown,
    shown,
    needs,
    addOf,
    doubts,
    /** Something is typed that would be recorded. */
    typedNow,
    swapTyped,
    submit,
  };
}
export type Powers = ReturnType<typeof useRefraction>;
