'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { EYES, may, type VisitHead } from '@/core';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { useAnswerWords } from '../../common/answerWords';
import { useVisit } from './VisitProvider';

/** What was heard, in three cells of two lines: it stands at every step. */
export function HandOverStrip() {
  const t = useTranslations('visitFrame');
  const stops = useWordsOf('ruleNames');
  const words = useAnswerWords();
  const { lines } = useVisit().record;
  return (
    <>
      <div className="strip-cell drop-narrow strip-first" data-testid="wants">
        <div className="label">{t('wants')}</div>
        {lines.wants.length === 0 ? <div className="label">{t('wantsNothing')}</div> : null}
        {lines.wants.map((w) => (
          <div key={`${w.question}-${w.value}`} className="strip-line">
            {w.question === 'tell' ? w.value : words.option(w.question, w.value)}
          </div>
        ))}
      </div>
      <div className="strip-cell" data-testid="cautions">
        <div className="label">
          {t('cautions')} {lines.more > 0 ? t('more', { count: lines.more }) : null}
        </div>
        {lines.cautions.length === 0 ? <div className="label">{t('cautionsNone')}</div> : null}
        {lines.cautions.map((c) => {
          const state = c.strength === 'caution' || c.strength === 'overwear' ? 'watch' : 'stop';
          return (
            <div key={c.rule} className={`strip-line stated stated-${state}`}>
              <StateMark state={state} size={12} />
              <span className="truncate">{stops(c.rule)}</span>
            </div>
          );
        })}
      </div>
      <WearsNow wears={lines.wears} />
    </>
  );
}

function WearsNow({ wears }: { readonly wears: VisitHead['lines']['wears'] }) {
  const t = useTranslations('visitFrame');
  const words = useAnswerWords();
  const { record } = useVisit();
  const families = [...new Set(EYES.flatMap((eye) => record.worn[eye]?.familyName ?? []))];
  const first = families.length > 0 ? families.join(', ') : (wears.name ?? (wears.which ? words.option('whichLens', wears.which) : t('wearsNothing')));
  const second = wears.days !== null ? t('every', { days: wears.days }) : wears.last ? words.option('lastWorn', wears.last) : null;
  return (
    <div className="strip-cell drop-narrow" data-testid="wears-now">
      <div className="label">{t('wearsNow')}</div>
      <div className="strip-line">{first}</div>
      {second ? <div className="strip-line">{second}</div> : null}
    </div>
  );
}

/** A danger sign heard: it stays over every step until a prescriber has taken note of it. */
export function AlertBand() {
  const t = useTranslations('visitFrame');
  const words = useAnswerWords();
  const { record, run, busy } = useVisit();
  if (record.alert === null) return null;
  const { answerId, signs } = record.alert;
  return (
    <div className="alert-band" role="alert">
      <StateMark state="stop" size={20} />
      <div>
        <strong>{t('alertHeard')}</strong> {t('alertText', { signs: words.answer('danger', signs) })}
        {may(record.session.viewer.roles, 'sign') ? null : <div className="note">{t('alertForPrescriber')}</div>}
      </div>
      {may(record.session.viewer.roles, 'sign') ? (
        <Button disabled={busy} onClick={() => void run('acknowledgeAlert', { answerId }, t('acknowledged'))}>
          {t('acknowledge')}
        </Button>
      ) : null}
    </div>
  );
}
