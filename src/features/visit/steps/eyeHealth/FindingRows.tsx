'use client';
import { useTranslations } from 'use-intl';
import { EYES, GRADED, MEASURES, SYMPTOMS, type Eye, type SignId } from '@/core';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { GradeRow } from './GradeRow';
import { GradeFigures } from './GradeScale';
import { MeasureRow } from './MeasureRow';
import { draftKey, thresholdOf, trendOf } from './model';
import { SightRows } from './SightRows';
import type { FindingsTyped } from './useFindings';
import { useWalk } from './useWalk';

/** From which grade a sign counts, in words. */
function useNoteOf(): (id: SignId) => string {
  const t = useTranslations('eyeHealth');
  const { settings } = useVisit().record.session;
  return (id) => {
    const threshold = thresholdOf(id, settings);
    if (id === 'papillae') return t('everted', { value: settings.actsPapillae });
    if (id === 'staining') return t('actsCentral', { value: settings.actsStaining, central: settings.actsCentralStaining });
    if (id === 'vessels') return t('actsAtMm', { value: settings.actsVesselsMm });
    if (id === 'infiltrates' || id === 'oedema') return t('anyActs');
    if (id === 'endothelium') return t('actsOnChange', { value: settings.actsChange });
    return threshold === null ? t('recorded') : t('actsAt', { value: threshold });
  };
}

function ScaleHead({ eye }: { readonly eye: Eye }) {
  return (
    <div className="grade-side" data-eye={eye}>
      <span />
      <GradeFigures eye={eye} />
    </div>
  );
}

/** Signs, symptoms and measures of both eyes. */
export function FindingRows({ findings }: { readonly findings: FindingsTyped }) {
  const t = useTranslations('eyeHealth');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const noteOf = useNoteOf();
  const { draft, live, closed, faultOf, put } = findings;
  const { here, eyeHere, go } = useWalk(findings);
  const some = (id: SignId): boolean => EYES.some((e) => Number(live.today[e][id] ?? 0) > 0);
  const measure = (id: SignId) => (
    <MeasureRow key={id} id={id} health={live} body={draft.body} fault={faultOf(id)} closed={closed} onText={(e, text) => draft.set(draftKey(e, id), text)} />
  );
  return (
    <Spine label={t('title')}>
      <SpineHead words={eyeWords.heads} label={t('facing')} />
      <SpineRow label={<span className="note">{t('scale')}</span>} right={<ScaleHead eye="right" />} left={<ScaleHead eye="left" />} />
      {GRADED.map(({ id }) => (
        <GradeRow
          key={id}
          id={id}
          note={noteOf(id)}
          threshold={thresholdOf(id, record.session.settings)}
          health={live}
          trend={(e) => trendOf(record, e, id)}
          current={id === here}
          eyeHere={eyeHere}
          fault={faultOf(id)}
          closed={closed}
          onHere={(e) => go(id, e)}
          onGrade={(e, value) => put(e, id, value)}
        />
      ))}
      {some('staining') ? (
        <>
          {measure('stainingPlace')}
          {measure('stainingDepth')}
          {measure('stainingArea')}
        </>
      ) : null}
      {some('infiltrates') ? measure('infiltratePlace') : null}
      <SightRows body={draft.body} closed={closed} onText={(e, way, text) => draft.set(draftKey(e, way), text)} />
      {SYMPTOMS.map(({ id }) => measure(id))}
      {MEASURES.map(({ id }) => measure(id))}
    </Spine>
  );
}
