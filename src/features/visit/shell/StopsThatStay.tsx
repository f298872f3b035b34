'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { LENS_PASS_RULES, OVERRIDABLE, overrideOf } from '@/core';
import { Stated } from '@/ui/marks';
import { DecisionLine } from './DecisionLine';
import { decisionOf } from './health';
import { useVisit } from './VisitProvider';

/** What must stay in view beside a prescription: stops passed and why, another kind chosen and why, the same lens again. */
export function StopsThatStay() {
  const t = useTranslations('print');
  const stops = useWordsOf('ruleNames');
  const { record, health } = useVisit();
  const decision = decisionOf(record);
  const again = record.health.overrides.filter((p) => LENS_PASS_RULES.includes(p.rule) && p.visitId === record.visit.id);
  return (
    <div className="mb-3" data-testid="stops-that-stay">
      {health.fired
        .filter((f) => OVERRIDABLE.includes(f.rule.strength))
        .map((f) => {
          const pass = overrideOf(f, record.health.overrides);
          return (
            <p key={f.rule.id} className="mb-2">
              <Stated state={pass ? 'watch' : 'stop'}>
                {stops(f.rule.id)}
                {pass ? `: ${t('reasonGiven', { name: pass.overriddenByName, reason: pass.reason })}` : ''}
              </Stated>
            </p>
          );
        })}
      {again.map((p) => (
        <p key={p.id} className="mb-2">
          <Stated state="watch">{t('named', { name: stops(p.rule), text: t('reasonGiven', { name: p.overriddenByName, reason: p.reason }) })}</Stated>
        </p>
      ))}
      {decision ? (
        <p className="mb-2">
          <DecisionLine />
        </p>
      ) : null}
    </div>
  );
}
