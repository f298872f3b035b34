'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { evidenceKey, may, OVERRIDABLE, overrideOf, type Fired, type HealthState } from '@/core';
import { formatTime } from '@/i18n/format';
import { Stated } from '@/ui/marks';
import { useEvidenceWords } from '../../shell/evidenceWords';
import { ReasonPanel } from '../../shell/ReasonPanel';
import { useVisit } from '../../shell/VisitProvider';
import { LIMIT_OF } from './model';

/** The margin of the eye health page: each rule that holds, why, what would free it, and who passed it. */
export function Reasons({ health }: { readonly health: HealthState }) {
  const t = useTranslations('eyeHealth');
  const graded = Object.keys(health.today.right).length + Object.keys(health.today.left).length > 0;
  return (
    <>
      <h2 className="mb-3">{t('reasoning')}</h2>
      {health.fired.length === 0 ? (
        <p>{graded ? <Stated state="ok">{t('clear')}</Stated> : t('nothingYet')}</p>
      ) : (
        health.fired.map((fired) => <Reason key={fired.rule.id} fired={fired} />)
      )}
    </>
  );
}

function Reason({ fired }: { readonly fired: Fired }) {
  const t = useTranslations('eyeHealth');
  const stops = useTranslations('stops');
  const stopsOf = useWordsOf('stops');
  const names = useWordsOf('ruleNames');
  const evidence = useEvidenceWords();
  const { record, health, run } = useVisit();
  const { rule } = fired;
  const passable = OVERRIDABLE.includes(rule.strength);
  const pass = overrideOf(fired, record.health.overrides);
  const recorded = health.fired.some((f) => evidenceKey(f) === evidenceKey(fired));
  const limit = Object.hasOwn(LIMIT_OF, rule.id) ? record.session.settings[LIMIT_OF[rule.id as 'lidMargin']] : '';
  const state = rule.strength === 'caution' || rule.strength === 'overwear' ? 'watch' : 'stop';
  return (
    <section className="mb-4" data-testid={`reason-${rule.id}`}>
      <Stated state={state}>
        <strong>
          {stops(`strength.${rule.strength}`)} · {names(rule.id)}
        </strong>
      </Stated>
      <p>{stopsOf(`r.${rule.id}.why`)}</p>
      <p className="note">{[...fired.evidence.map(evidence), rule.source.text].join(' · ')}</p>
      {passable ? (
        <p className="mt-1">
          <strong>{t('frees')}</strong> {t('freesBy', { what: stopsOf(`r.${rule.id}.frees`, { limit }) })}
        </p>
      ) : null}
      {rule.strength === 'overwear' ? (
        <p className="mt-1">
          <strong>{t('steers')}</strong> {t('freesBy', { what: stopsOf(`r.${rule.id}.steer`) })}
        </p>
      ) : null}
      {pass ? (
        <p className="mt-1" data-testid={`passed-${rule.id}`}>
          {t('passed', { name: pass.overriddenByName, time: formatTime(pass.overriddenAt, record.session.practice.timeZone), reason: pass.reason })}
        </p>
      ) : passable && recorded && may(record.session.viewer.roles, 'sign') && record.visit.closedAt === null ? (
        <ReasonPanel
          open={t('pass')}
          title={`${t('passTitle')}: ${names(rule.id)}`}
          text={t('passText')}
          doWords={t('passDo')}
          onReason={async (reason) => (await run('overrideStop', { rule: rule.id, reason }, t('passDone')))?.ok === true}
        />
      ) : passable ? (
        <p className="note mt-1">{t('passText')}</p>
      ) : null}
    </section>
  );
}
