'use client';
import Link from 'next/link';
import { useRouter } from 'next/navigation';
import { useTranslations } from 'use-intl';
import answersWords from '@/i18n/messages/en/answers.messages.json';
import draftWords from '@/i18n/messages/en/draft.messages.json';
import redEyeProblems from '@/i18n/messages/en/redEyeProblems.messages.json';
import redEyeWords from '@/i18n/messages/en/redEye.messages.json';
import signsWords from '@/i18n/messages/en/signs.messages.json';
import { withWords } from '@/i18n/withWords';
import { useWordsOf } from '@/i18n/wordsOf';
import { Button } from '@/ui/Button';
import { Stated, StateMark } from '@/ui/marks';
import { Spine, SpineHead } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { DraftLine } from '../../shell/DraftLine';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { AskedRows } from './AskedRows';
import { CorneaRow } from './CorneaRow';
import { FellowRow, LensRow, SignRows } from './SignRows';
import { SightRows } from './SightRows';
import { useRedEye, type RedEye } from './useRedEye';

/** A red eye: sight before anything else, then what is seen, placed on the cornea, then the letter. Open whatever stops a lens. */
function RedEyeBody() {
  const t = useTranslations('redEye');
  const eyeWords = useEyeWords();
  const router = useRouter();
  const { record, busy } = useVisit();
  const page = useRedEye();
  const { stops } = page;
  return (
    <VisitFrame
      step="redEye"
      keys={[
        [['↑', '↓', '←', '→'], t('keyMove')],
        [['+', '−'], t('keySize')],
      ]}
      margin={<Margin page={page} />}
      actions={
        <>
          <Button look={stops.length === 0 ? 'act' : 'plain'} onClick={() => router.push(`/visits/${record.visit.id}/eye-health`)}>
            {t('toEyes')}
          </Button>
          {stops.length === 0 ? null : (
            <Button look="act" disabled={busy} onClick={() => void page.letter()}>
              {page.referred ? t('letterAgain') : t('letter')}
            </Button>
          )}
        </>
      }
    >
      <Threat page={page} />
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('sightFirst')} />
        <SightRows page={page} />
        <SignRows page={page} />
        <CorneaRow page={page} />
        <FellowRow page={page} />
        <LensRow />
      </Spine>
      <AskedRows page={page} />
      <DraftLine draft={page.draft} />
    </VisitFrame>
  );
}

/** Said large: sight is in danger, and what must not be done before the cornea is scraped. */
function Threat({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  const eyeWords = useEyeWords();
  if (page.threatened.length === 0) return null;
  return (
    <section className="px-6 py-4 border-b-2 border-stop" role="alert" data-testid="threat">
      <h1 className="power flex gap-3 items-center text-stop">
        <StateMark state="stop" size={28} />
        {t('threat')}
      </h1>
      {page.threatened.map((eye) => (
        <p key={eye} className="value">
          {t('threatEye', { eye: eyeWords.name(eye), what: page.health.threats[eye].map((threat) => t(`threats.${threat}`)).join('; ') })}
        </p>
      ))}
      <p>{t('today')}</p>
      <p>{t('before')}</p>
    </section>
  );
}

function Margin({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  const { record } = useVisit();
  const rules = useWordsOf('ruleNames');
  return (
    <>
      {page.stops.length === 0 ? (
        <p className="mb-4">{t('noStop')}</p>
      ) : (
        <ul className="mb-4 flex flex-col gap-2" data-testid="red-eye-stops">
          {page.stops.map((stop) => (
            <li key={stop.id}>
              <Stated state="stop">{t('stopOpen', { name: rules(stop.rule) })}</Stated>
            </li>
          ))}
        </ul>
      )}
      {page.threatened.length === 0 ? <p className="mb-4">{t('before')}</p> : null}
      <h2 className="mb-2">{t('why')}</h2>
      <p className="mb-3">{t('whyText')}</p>
      <p className="mb-3">{t('release')}</p>
      <Link className="btn btn-quiet" href={`/visits/${record.visit.id}/aftercare`}>
        {t('toEvent')}
      </Link>
    </>
  );
}

export const RedEyeStep = withWords({ answers: answersWords, draft: draftWords, redEye: redEyeWords, signs: signsWords, problems: redEyeProblems }, RedEyeBody);
