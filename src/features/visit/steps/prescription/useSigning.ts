import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { addDays, addYears, dktAt, EYES, lastLook, lastLookAtWearer, may, PURPOSES, type Eye, type LookLine, type Picked } from '@/core';
import { formatDay } from '@/i18n/format';
import { useDraft } from '../../shell/useDraft';
import { eyesOfRecord } from '../../shell/eyes';
import { decisionOf } from '../../shell/health';
import { useVisit } from '../../shell/VisitProvider';
import { sentenceKey, toPrescribe } from './model';

const PICKS: readonly Picked[] = ['refraction', 'overRefraction'];

/** What would be signed as things stand, and the command that signs it. */
export function useSigning() {
  const t = useTranslations('prescription');
  const { record, run, lensOf, health } = useVisit();
  const { settings, today, viewer } = record.session;
  const draft = useDraft('prescription');
  const [password, setPassword] = useState('');
  const pickOf = (e: Eye): Picked | null => PICKS.find((p) => p === draft.body[`${e}Pick`]) ?? null;
  const picks = { right: pickOf('right'), left: pickOf('left') };
  const states = eyesOfRecord(record, lensOf, picks);
  const plans = { right: toPrescribe(record, states.right, 'right', draft.body), left: toPrescribe(record, states.left, 'left', draft.body) };
  const signed = record.prescriptions.find((p) => p.visitId === record.visit.id) ?? null;
  const purpose = PURPOSES.find((p) => p === draft.body.purpose) ?? 'everyday';
  const before = record.prescriptions.find((p) => p.purpose === purpose) ?? null;
  const [again, setAgain] = useState(false);
  const maySign = may(viewer.roles, 'sign');
  const proposedExpiry = addDays(addYears(today, Math.max(1, Math.round(settings.prescriptionMonths / 12))), 0);
  const expires = draft.body.expires ?? formatDay(proposedExpiry);
  const days = draft.body.days ?? '7';
  const mustWait = settings.finalPrescription === 'afterAftercare' && record.visit.kind !== 'aftercare';
  const rawPossible =
    EYES.some((e) => plans[e].blocked === null && !plans[e].leftOut) && EYES.every((e) => plans[e].blocked !== null || plans[e].leftOut || plans[e].rawReady);
  const raw = draft.body.mode === 'raw' && rawPossible;
  const included = EYES.filter((e) => plans[e].blocked === null && !plans[e].leftOut);
  const overnight = decisionOf(record)?.chosen.wear === 'overnight';
  const lookOf = (e: Eye): readonly LookLine[] => {
    const { family, lens, variant } = plans[e];
    const tried = states[e].onEye?.current.lensId ? record.lenses[states[e].onEye.current.lensId] : undefined;
    const power = raw ? (tried ? { sphere: tried.sphereD, cylinder: tried.cylinderD } : null) : (lens?.power ?? null);
    return lastLook(states[e], health, e, {
      wearsAdd: !raw && variant?.add != null,
      ...(family && power ? { dkt: dktAt(family, power) } : {}),
      overnight,
      overnightApproved: family?.overnightApproved ?? false,
    });
  };
  const looks = { right: lookOf('right'), left: lookOf('left') };
  const wearerLook = lastLookAtWearer(health);
  const sentences = () => {
    const of = (e: Eye | null, lines: readonly LookLine[]) =>
      lines.flatMap(({ code, state }) => {
        const reason = (draft.body[sentenceKey(e, code)] ?? '').trim();
        return state === 'asks' && reason !== '' ? [{ eye: e, code, reason }] : [];
      });
    return [...of(null, wearerLook), ...included.flatMap((e) => of(e, looks[e]))];
  };

  const sign = async (): Promise<void> => {
    const of = (e: Eye) => {
      const { family, lens, variant, blocked, leftOut } = plans[e];
      const triedId = states[e].onEye?.rootId;
      if (blocked !== null || leftOut) return null;
      if (raw) {
        const made = variant ?? plans[e].curves[0];
        return triedId && made ? { mode: 'raw' as const, triedLensOnEyeId: triedId, baseCurve: made.baseCurve, diameter: made.diameter } : null;
      }
      if (!family || !lens || !variant) return null;
      return {
        mode: 'final' as const,
        lens: {
          familyId: family.id,
          sphere: lens.power.sphere,
          cylinder: lens.power.cylinder,
          axis: lens.power.axis,
          add: variant.add,
          baseCurve: variant.baseCurve,
          diameter: variant.diameter,
        },
        triedLensOnEyeId: triedId ?? null,
      };
    };
    const done = await run(
      'sign',
      {
        right: of('right'),
        left: of('left'),
        rightPicked: picks.right,
        leftPicked: picks.left,
        overrides: sentences(),
        password,
        expiresOn: expires,
        waitNote: draft.body.note ?? '',
        daysPerWeek: Number(days),
        purpose,
      },
      t('signedToast'),
    );
    setPassword('');
    if (done?.ok) {
      draft.clear();
      setAgain(false);
    }
  };
  const shown = signed !== null && !again ? signed : null;
  return {
    draft,
    states,
    looks,
    wearerLook,
    plans,
    included,
    raw,
    rawPossible,
    mustWait,
    maySign,
    expires,
    days,
    purpose,
    password,
    setPassword,
    /** The prescription of this visit, unless another is being signed in its place. */
    shown,
    before,
    signAgain: () => setAgain(true),
    sign,
  };
}
export type Signing = ReturnType<typeof useSigning>;
