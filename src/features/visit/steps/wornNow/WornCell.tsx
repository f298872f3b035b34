'use client';
import { useTranslations } from 'use-intl';
import { dayIn, type ProvenanceNode } from '@/core';
import { formatDay } from '@/i18n/format';
import { LensToken } from '@/ui/LensToken';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { powerWords } from '../../shell/worn';
import type { AskedEye } from './model';

/** The lens that counts as worn on one eye: power, family, curve, and what its box says. */
export function WornCell({ asked }: { readonly asked: AskedEye }) {
  const t = useTranslations('wornNow');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const { eye, worn } = asked;
  if (!worn) return <span className="label">{t('nothing')}</span>;
  const lens = record.lenses[worn.lensId];
  const power = powerWords(record, worn.lensId);
  return (
    <span className={`flex gap-3 items-center ${eye === 'left' ? 'flex-row-reverse' : ''}`}>
      <span className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`}>
        <span className="power-read" data-testid={`worn-${eye}`}>
          {[power, lens?.addBand ?? ''].filter(Boolean).join(' ')}
        </span>
        <span className="note">
          {t('lensLine', { family: lens?.familyName ?? '', curve: lens?.baseCurveMm?.toFixed(1) ?? '', diameter: lens?.diameterMm?.toFixed(1) ?? '' })}
        </span>
        <span className="note">
          {worn.lot === null ? t('unseen') : t('boxLine', { lot: worn.lot, expires: worn.expiresOn === null ? '' : formatDay(worn.expiresOn) })}
        </span>
      </span>
      <LensToken
        size={48}
        ring="unjudged"
        geometry={lens?.geometry ?? 'sphere'}
        rotationLeft={0}
        axisGiven={lens && lens.cylinderD !== 0 ? lens.axisDeg : null}
        axisAsked={null}
        label={t('tokenLabel', { eye: eyeWords.name(eye), power })}
      />
    </span>
  );
}

/** How it is known: each fact and the one that led to it, newest first. */
export function ChainCell({ asked }: { readonly asked: AskedEye }) {
  const { eye, chain, worn } = asked;
  return (
    <ol className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`} data-testid={`chain-${eye}`}>
      {chain.map((link) => (
        <li key={`${link.kind}${link.at}`} className={`flex gap-2 items-start ${eye === 'left' ? 'flex-row-reverse' : ''}`}>
          <Link link={link} eye={eye} differs={worn !== null && link.lensId !== worn.lensId} />
          <svg width="12" height="12" aria-hidden="true" className="mt-1">
            <rect x="1.5" y="1.5" width="9" height="9" fill={link.kind === 'tried' ? 'none' : 'var(--ink)'} stroke="var(--ink)" />
          </svg>
        </li>
      ))}
    </ol>
  );
}

function Link({ link, eye, differs }: { readonly link: ProvenanceNode; readonly eye: AskedEye['eye']; readonly differs: boolean }) {
  const t = useTranslations('wornNow');
  const { record } = useVisit();
  const power = powerWords(record, link.lensId);
  const day = formatDay(dayIn(link.at, record.session.practice.timeZone));
  return (
    <span className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <span>{t(`links.${link.kind}`, { day, number: link.number === null ? 'none' : String(link.number), power })}</span>
      {differs && link.kind !== 'tried' ? <span className="note">{t('otherLens', { power })}</span> : null}
    </span>
  );
}
