'use client';
import dynamic from 'next/dynamic';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import correctWords from '@/i18n/messages/en/correct.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import eyeHealthWords from '@/i18n/messages/en/eyeHealth.messages.json';
import kindWords from '@/i18n/messages/en/kind.messages.json';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import stopsWords from '@/i18n/messages/en/stops.messages.json';
import { Button } from '@/ui/Button';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { FindingRows } from './FindingRows';
import { Reasons } from './Reasons';
import { useFindings } from './useFindings';

// What is seldom there brings its own script.
const AbsoluteStop = dynamic(() => import('./AbsoluteStop').then((m) => m.AbsoluteStop));
const Pictures = dynamic(() => import('./Pictures').then((m) => m.Pictures));

/** Graded findings, symptoms and measures of both eyes, and what they mean for a lens. */
function EyeHealthStepBody() {
  const t = useTranslations('eyeHealth');
  const router = useRouter();
  const { record, busy } = useVisit();
  const findings = useFindings();
  const { draft, live, waiting, stopped, referred, closed } = findings;
  const act = (): void => {
    if (waiting) void findings.recordAll();
    else if (stopped.length > 0) void findings.refer();
    else router.push(`/visits/${record.visit.id}/refraction`);
  };
  return (
    <VisitFrame
      step="eyeHealth"
      keys={[
        [['↑', '↓'], t('keySign')],
        [['0', '4'], t('keyGrade')],
        [['.'], t('keyHalf')],
        [['R', 'L'], t('keyEye')],
        [['='], t('keySame')],
      ]}
      margin={stopped.length > 0 ? <AbsoluteStop /> : <Reasons health={live} />}
      actions={
        <Button look="act" keys={['⏎']} data-enter="true" disabled={busy || (closed && stopped.length === 0)} onClick={act}>
          {waiting ? t('record') : stopped.length > 0 ? (referred ? t('printReferral') : t('refer')) : t('toPower')}
        </Button>
      }
    >
      <FindingRows findings={findings} />
      <p className="note px-6 py-3 flex gap-5">
        <span>{t('last')}</span>
        <span>{t('threshold')}</span>
        <span>{t('own')}</span>
      </p>
      <DraftLine draft={draft} />
      <Pictures />
    </VisitFrame>
  );
}

export const EyeHealthStep = withWords(
  { stops: stopsWords, correct: correctWords, draft: draftWords, eyeHealth: eyeHealthWords, kind: kindWords, powerField: powerFieldWords, signs: signsWords },
  EyeHealthStepBody,
);
