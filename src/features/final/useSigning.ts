import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { addDays, addYears, EYES, may, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { useDraft } from '../common/visit/useDraft';
import { useVisit } from '../common/visit/VisitProvider';
import { toPrescribe } from './model';

/** What would be signed as things stand, and the deed that signs it. */
export function useSigning() {
  const t = useTranslations('final');
  const { record, eye, run } = useVisit();
  const { settings, today, viewer } = record.house;
  const draft = useDraft('final');
  const [password, setPassword] = useState('');
  const plans = { right: toPrescribe(record, eye('right'), 'right', draft.body), left: toPrescribe(record, eye('left'), 'left', draft.body) };
  const signed = record.prescriptions.find((p) => p.visitId === record.visit.id) ?? null;
  const before = record.prescriptions[0] ?? null;
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

  const sign = async (): Promise<void> => {
    const of = (e: Eye) => {
      const { family, lens, variant, blocked, leftOut } = plans[e];
      const triedId = eye(e).onEye?.rootId;
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
        triedLensOnEyeId: eye(e).onEye?.rootId ?? null,
      };
    };
    const done = await run(
      'sign',
      { right: of('right'), left: of('left'), password, expiresOn: expires, waitNote: draft.body.note ?? '', daysPerWeek: Number(days) },
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
    plans,
    included,
    raw,
    rawPossible,
    mustWait,
    maySign,
    expires,
    days,
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
