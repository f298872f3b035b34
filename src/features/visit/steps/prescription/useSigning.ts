import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { addMonths, isFollowUp, lastLookAtWearer, may, PURPOSES, type Eye, type Picked } from '@/core';
import { formatDay } from '@/i18n/format';
import { eyesOfRecord } from '../../shell/eyes';
import { decisionOf } from '../../shell/health';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { toPrescribe } from './model';
import { eyeToSign, includedIn, lookAt, rawPossible, sentencesFor } from './toSign';

const PICKS: readonly Picked[] = ['refraction', 'overRefraction'];

/** What would be signed as things stand. */
function usePlans() {
  const { record, lensOf, health } = useVisit();
  const { settings, today, viewer } = record.session;
  const draft = useDraft('prescription');
  const pickOf = (e: Eye): Picked | null => PICKS.find((p) => p === draft.body[`${e}Pick`]) ?? null;
  const picks = { right: pickOf('right'), left: pickOf('left') };
  const states = eyesOfRecord(record, lensOf, picks);
  const plans = { right: toPrescribe(record, states.right, 'right', draft.body), left: toPrescribe(record, states.left, 'left', draft.body) };
  const rawMay = rawPossible(plans);
  const raw = draft.body.mode === 'raw' && rawMay;
  const overnight = decisionOf(record)?.chosen.wear === 'overnight';
  const look = (e: Eye) => lookAt(e, plans[e], { record, state: states[e], health, raw, overnight });
  const purpose = PURPOSES.find((p) => p === draft.body.purpose) ?? 'everyday';
  const said = health.answers.daysPerWeek?.value;
  return {
    draft,
    picks,
    states,
    plans,
    included: includedIn(plans),
    raw,
    rawPossible: rawMay,
    looks: { right: look('right'), left: look('left') },
    wearerLook: lastLookAtWearer(health),
    purpose,
    before: record.prescriptions.find((p) => p.purpose === purpose) ?? null,
    expires: draft.body.expires ?? formatDay(addMonths(today, settings.prescriptionMonths)),
    /** As often as the wearer said; every day where nothing was said. */
    days: draft.body.days ?? (typeof said === 'number' ? String(said) : '7'),
    mustWait: settings.finalPrescription === 'afterAftercare' && !isFollowUp(record.visit.kind),
    maySign: may(viewer.roles, 'sign'),
  };
}

/** What would be signed, and the command that signs it. */
export function useSigning() {
  const t = useTranslations('prescription');
  const { record, run } = useVisit();
  const [password, setPassword] = useState('');
  const [again, setAgain] = useState(false);
  const plans = usePlans();
  const { draft, picks, states, looks, wearerLook, included, raw, expires, days, purpose } = plans;
  const sign = async (): Promise<void> => {
    const of = (e: Eye) => eyeToSign(plans.plans[e], states[e].onEye?.rootId, raw);
    const form = {
      right: of('right'),
      left: of('left'),
      rightPicked: picks.right,
      leftPicked: picks.left,
      overrides: [...sentencesFor(draft.body, null, wearerLook), ...included.flatMap((e) => sentencesFor(draft.body, e, looks[e]))],
      password,
      expiresOn: expires,
      waitNote: draft.body.note ?? '',
      expiryReason: draft.body.expiryReason ?? '',
      daysPerWeek: Number(days),
      purpose,
    };
    const done = await run('sign', form, t('signedToast'));
    setPassword('');
    if (!done?.ok) return;
    draft.clear();
    setAgain(false);
  };
  const signed = record.prescriptions.find((p) => p.visitId === record.visit.id) ?? null;
  return {
    ...plans,
    password,
    setPassword,
    /** The prescription of this visit, unless another is being signed in its place. */
    shown: again ? null : signed,
    signAgain: () => setAgain(true),
    sign,
  };
}
export type Signing = ReturnType<typeof useSigning>;
