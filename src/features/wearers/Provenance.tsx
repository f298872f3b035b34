'use client';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, provenance, type Eye, type LensFactKind, type WearerFile } from '@/core';
import { formatMoment } from '@/i18n/format';
import { LensToken } from '@/ui/LensToken';
import { Stated } from '@/ui/marks';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';

const KINDS: readonly LensFactKind[] = ['handedOver', 'ordered', 'sellerVerified', 'boughtElsewhere', 'broughtAlong', 'prescribed', 'tried'];

/** Shown only where there are any. */
const FROM_ELSEWHERE: readonly LensFactKind[] = ['sellerVerified', 'boughtElsewhere', 'broughtAlong'];

interface Of {
  readonly file: WearerFile;
  readonly eye: Eye;
}
const powerOf = (file: WearerFile, lensId: string): string => {
  const l = file.lenses[lensId];
  return l ? formatRefraction({ sphere: l.sphereD, cylinder: l.cylinderD, axis: l.axisDeg }) : '';
};

/** What is worn now on each eye, and from which facts we know. */
export function Provenance({ file }: { readonly file: WearerFile }) {
  const t = useTranslations('wearer');
  const eyeWords = useEyeWords();
  return (
    <Spine label={t('title')}>
      <SpineHead words={eyeWords.heads} label={t('facing')} />
      <SpineRow
        chosen
        tone="field"
        label={t('wornNow')}
        note={t('wornNote')}
        right={<WornCell file={file} eye="right" />}
        left={<WornCell file={file} eye="left" />}
      />
      {KINDS.filter((kind) => !FROM_ELSEWHERE.includes(kind) || EYES.some((eye) => provenance(file, eye).nodes[kind])).map((kind) => (
        <SpineRow
          key={kind}
          label={t(`kind.${kind}`)}
          note={t(`kindNote.${kind}`)}
          right={<FactCell file={file} eye="right" kind={kind} />}
          left={<FactCell file={file} eye="left" kind={kind} />}
        />
      ))}
    </Spine>
  );
}

function FactCell({ file, eye, kind }: Of & { readonly kind: LensFactKind }) {
  const t = useTranslations('wearer');
  const { timeZone } = useServer().session.practice;
  const { nodes, worn } = provenance(file, eye);
  const node = nodes[kind];
  if (!node) return <span className="label">{t('notYet')}</span>;
  const differs = worn !== null && node.lensId !== worn.lensId;
  const hollow = kind === 'tried' && differs;
  return (
    <span className={`flex gap-3 items-center ${eye === 'left' ? 'flex-row-reverse' : ''}`}>
      <span className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`}>
        <span className="value">{powerOf(file, node.lensId)}</span>
        <span className="note">{t('nodeLine', { family: file.lenses[node.lensId]?.familyName ?? '', time: formatMoment(node.at, timeZone) })}</span>
        {differs ? <Stated state="watch">{kind === 'tried' ? t('neverCopied') : t('differs')}</Stated> : null}
      </span>
      <svg width="12" height="12" aria-hidden="true">
        <rect x="1.5" y="1.5" width="9" height="9" fill={hollow ? 'none' : 'var(--ink)'} stroke="var(--ink)" strokeDasharray={hollow ? '2 2' : undefined} />
      </svg>
    </span>
  );
}

function WornCell({ file, eye }: Of) {
  const t = useTranslations('wearer');
  const eyeWords = useEyeWords();
  const { worn } = provenance(file, eye);
  if (!worn) return <span className="label">{t('wearsNothing')}</span>;
  const l = file.lenses[worn.lensId];
  const power = powerOf(file, worn.lensId);
  return (
    <span className={`flex gap-3 items-center ${eye === 'left' ? 'flex-row-reverse' : ''}`}>
      <span className={`flex flex-col ${eye === 'right' ? 'items-end' : 'items-start'}`}>
        <span className="power-read" data-testid={`worn-${eye}`}>
          {power}
        </span>
        <span className="note">
          {t('wornLine', { family: l?.familyName ?? '', curve: l?.baseCurveMm?.toFixed(1) ?? '', diameter: l?.diameterMm?.toFixed(1) ?? '' })}
        </span>
      </span>
      <LensToken
        size={48}
        ring="unjudged"
        geometry={l?.geometry ?? 'sphere'}
        rotationLeft={0}
        axisGiven={l && l.cylinderD !== 0 ? l.axisDeg : null}
        axisAsked={null}
        label={t('tokenLabel', { eye: eyeWords.name(eye), power })}
      />
    </span>
  );
}
