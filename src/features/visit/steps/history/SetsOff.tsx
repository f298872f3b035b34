'use client';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import type { HealthState } from '@/core';
import { useEvidenceWords } from '../../shell/evidenceWords';
import { Stated } from '@/ui/marks';

const ROOM = 6;

/** The margin: what the answers set off so far, the strongest first. */
export function SetsOff({ health }: { readonly health: HealthState }) {
  const t = useTranslations('history');
  const stops = useTranslations('stops');
  const stopsOf = useWordsOf('stops');
  const names = useWordsOf('ruleNames');
  const evidence = useEvidenceWords();
  const shown = health.fired.slice(0, ROOM);
  return (
    <>
      <h2 className="mb-3">{t('setsOff')}</h2>
      {shown.length === 0 ? <p className="label">{t('nothing')}</p> : null}
      {shown.map((f) => (
        <div key={f.rule.id} className="mb-3" data-testid={`fired-${f.rule.id}`}>
          <Stated state={f.rule.strength === 'caution' || f.rule.strength === 'overwear' ? 'watch' : 'stop'}>
            <strong>
              {stops(`strength.${f.rule.strength}`)} · {names(f.rule.id)}
            </strong>
          </Stated>
          <p>{stopsOf(`r.${f.rule.id}.why`)}</p>
          <p className="note">{[...f.evidence.map(evidence), f.rule.source.text].join(' · ')}</p>
        </div>
      ))}
      {health.fired.length > ROOM ? <p className="label">{t('more', { count: health.fired.length - ROOM })}</p> : null}
      <p className="note mt-4">{t('medicineSource')}</p>
    </>
  );
}
