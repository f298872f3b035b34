'use client';
import { useTranslations } from 'use-intl';
import { ACUITY_WAYS, formatAcuity, latest, type AcuityWay, type Eye } from '@/core';
import { SpineRow } from '@/ui/Spine';
import { AcuityField } from '../../../common/AcuityField';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { RedEye } from './useRedEye';

/** What each eye sees, before a light or a drop is near it. */
export function SightRows({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  return (
    <>
      {ACUITY_WAYS.map((way) => (
        <SpineRow
          key={way}
          label={t(`sight.${way}`)}
          note={way === 'unaided' ? t('sightNote') : undefined}
          right={<Sight page={page} eye="right" way={way} />}
          left={<Sight page={page} eye="left" way={way} />}
        />
      ))}
    </>
  );
}

function Sight({ page, eye, way }: { readonly page: RedEye; readonly eye: Eye; readonly way: AcuityWay }) {
  const t = useTranslations('redEye');
  const eyeWords = useEyeWords();
  const { record, problem } = useVisit();
  const seen = latest(record.facts.eyeAcuities, (row) => row.eye === eye && row.way === way)?.current;
  const fault = problemAt(problem, `${eye}Sight`, '0', 'acuity');
  return (
    <form
      className={`flex gap-3 items-center flex-wrap ${eye === 'right' ? 'flex-row-reverse' : ''}`}
      onSubmit={(event) => {
        event.preventDefault();
        page.keepSight(eye, way);
      }}
      onBlur={() => page.keepSight(eye, way)}
    >
      <AcuityField
        id={`sight-${eye}-${way}`}
        label={t('sightLabel', { eye: eyeWords.name(eye), way: t(`sight.${way}`) })}
        text={page.draft.body[`${eye}:${way}`] ?? ''}
        onText={(text) => page.draft.set(`${eye}:${way}`, text)}
        disabled={page.closed}
        problem={fault}
      />
      {seen ? (
        <span className="value" data-testid={`sees-${eye}-${way}`}>
          {formatAcuity(seen.acuityLogMar, record.session.settings.acuity)}
        </span>
      ) : null}
    </form>
  );
}
