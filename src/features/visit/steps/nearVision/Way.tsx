'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { may, NEAR_WAYS, type NearWay, type WayChoice } from '@/core';
import { useWordsOf } from '@/i18n/wordsOf';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { NearVision } from './useNearVision';

interface Of {
  readonly page: NearVision;
}
/** How near is served: one way with its reasons, a second, what bars the rest, what would change it. */
export function Way({ page }: Of) {
  const t = useTranslations('nearVision');
  const rule = useWordsOf('nearVision.rule');
  const { advice, would, decided } = page;
  return (
    <>
      <h2 className="mb-2">{t('wayTitle')}</h2>
      {decided ? (
        <p className="mb-3" data-testid="way-decided">
          <Stated state="ok">{t('decidedLine', { way: t(`way.${decided.wordValue as NearWay}`), name: decided.recordedByName })}</Stated> {decided.note}
        </p>
      ) : null}
      <div className="mb-3" data-testid="way-recommended">
        <strong className="power">{t(`way.${advice.recommended.way}`)}</strong>
        <Reasons choice={advice.recommended} />
      </div>
      {advice.second ? (
        <div className="mb-3">
          <strong>{t('second', { way: t(`way.${advice.second.way}`) })}</strong>
          <Reasons choice={advice.second} />
        </div>
      ) : null}
      <details className="mb-2">
        <summary>{t('barredTitle')}</summary>
        <ul>
          {advice.barred.map(({ way, rules }) => (
            <li key={way} className="py-1">
              {t(`way.${way}`)} <span className="note">{rules.map((id) => rule(id)).join(' ')}</span>
            </li>
          ))}
        </ul>
      </details>
      {would.length > 0 ? (
        <details className="mb-2">
          <summary>{t('would')}</summary>
          <ul>
            {would.map(({ what, to }) => (
              <li key={what} className="py-1">
                {t('wouldLine', { what: t(`what.${what}`), way: t(`way.${to}`) })}
              </li>
            ))}
          </ul>
        </details>
      ) : null}
      {page.closed ? null : <Another page={page} />}
    </>
  );
}

function Reasons({ choice }: { readonly choice: WayChoice }) {
  const t = useTranslations('nearVision');
  const rule = useWordsOf('nearVision.rule');
  return (
    <>
      <ul>
        {choice.reasons.map((r) => (
          <li key={r.rule} className="note flex gap-2">
            <span aria-hidden="true">{r.points > 0 ? '+' : '−'}</span>
            {rule(r.rule)}
          </li>
        ))}
      </ul>
      {choice.needs.length > 0 ? <Stated state="watch">{t('needs', { tests: choice.needs.map((n) => t(`needsTest.${n}`)).join(', ') })}</Stated> : null}
    </>
  );
}

/** Another way than the one recommended, with the sentence that is kept. */
function Another({ page }: Of) {
  const t = useTranslations('nearVision');
  const words = useProblemWords();
  const { record } = useVisit();
  const { advice } = page;
  const prescriber = may(record.session.viewer.roles, 'sign');
  const offered = NEAR_WAYS.filter((way) => way !== advice.recommended.way && (prescriber || !advice.barred.some((b) => b.way === way)));
  const [way, setWay] = useState<NearWay | ''>('');
  const [reason, setReason] = useState('');
  const wrong = problemAt(page.problem, 'reason');
  const submit = (event: FormEvent): void => {
    event.preventDefault();
    if (way !== '') void page.decide(way, reason).then((done) => (done?.ok ? setReason('') : undefined));
  };
  return (
    <details>
      <summary>{t('choose')}</summary>
      <form onSubmit={submit} className="flex flex-col gap-2 py-2">
        <select className="choice h-10" aria-label={t('choose')} value={way} onChange={(event) => setWay(event.target.value as NearWay)}>
          <option value="" />
          {offered.map((w) => (
            <option key={w} value={w}>
              {t(`way.${w}`)}
            </option>
          ))}
        </select>
        <Field
          label={t('reason')}
          value={reason}
          onValue={setReason}
          maxLength={200}
          autoComplete="off"
          problem={wrong ? words(wrong.code, wrong.data) : null}
        />
        <Button type="submit" disabled={page.blocked || way === ''}>
          {t('decideOther')}
        </Button>
      </form>
    </details>
  );
}
