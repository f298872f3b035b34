'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { mayGoOn, STAGES, type Eye } from '@/core';
import diagnosticSetWords from '@/i18n/messages/en/diagnosticSet.messages.json';
import setReadyWords from '@/i18n/messages/en/setReady.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { Spine, SpineHead, SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { problemAt, useProblemWords } from '../../../common/words';
import { VisitFrame } from '../../shell/VisitFrame';
import { useVisit } from '../../shell/VisitProvider';
import { SetRow } from './SetRow';
import { useSets, type SetsHere } from './useSets';

const SHAPES = ['regular', 'prolate', 'oblate'] as const;

/** Irregular corneas: the shape of each, the practice's diagnostic sets, and which of their lenses goes on. */
function DiagnosticSetBody() {
  const t = useTranslations('diagnosticSet');
  const eyeWords = useEyeWords();
  const words = useProblemWords();
  const { record, problem, hasLibrary } = useVisit();
  const page = useSets();
  const closed = record.visit.closedAt !== null;
  const [one] = page.going;
  const asked =
    problemAt(problem, 'despiteReason') ??
    (problem?.kind === 'ruleBroken' && problem.rule.startsWith('leftOut.') ? { code: problem.rule, data: problem.data } : null);
  const held = (['right', 'left'] as const).flatMap((e) => problemAt(problem, e) ?? []);
  return (
    <VisitFrame
      step="lens"
      keys={[]}
      margin={<Reasons page={page} />}
      actions={
        <>
          <Link className="btn" href={`/visits/${record.visit.id}/lens`} prefetch={false}>
            {t('toLens')}
          </Link>
          <Button look="act" keys={['⏎']} data-enter="true" disabled={page.busy || closed || !page.ready} onClick={() => void page.putOn()}>
            {page.going.length === 2 ? t('putOnBoth') : one ? t('putOnOne', { eye: eyeWords.short(one) }) : t('putOnNone')}
          </Button>
        </>
      }
    >
      <Spine label={t('title')}>
        <SpineHead words={eyeWords.heads} label={t('title')} />
        <SpineRow
          label={t('cornea')}
          note={t('corneaNote')}
          right={<Cornea eye="right" page={page} closed={closed} />}
          left={<Cornea eye="left" page={page} closed={closed} />}
        />
        {page.sets.map((set) => (
          <SetRow key={set.code} set={set} page={page} />
        ))}
      </Spine>
      {hasLibrary && page.sets.length === 0 ? (
        <p className="p-8 text-center">
          {t('noSets')}{' '}
          <Link className="underline" href="/drawer/sets" prefetch={false}>
            {t('toSets')}
          </Link>
        </p>
      ) : null}
      {asked || page.despite !== '' ? (
        <div className="px-6 py-3 max-w-[720px]">
          <Field
            label={<Stated state="stop">{asked ? words(asked.code, asked.data) : t('despite')}</Stated>}
            value={page.despite}
            onValue={page.setDespite}
            maxLength={400}
          />
        </div>
      ) : null}
      {held.map((p) => (
        <p key={p.code} className="px-6 py-1">
          <Stated state="stop">{words(p.code, p.data)}</Stated>
        </p>
      ))}
      <p className="note text-center px-8 py-3">{t('ownNumbers')}</p>
    </VisitFrame>
  );
}

function Cornea({ eye, page, closed }: { readonly eye: Eye; readonly page: SetsHere; readonly closed: boolean }) {
  const t = useTranslations('diagnosticSet');
  const eyeWords = useEyeWords();
  const { health } = useVisit();
  const { cornea } = health.findings[eye];
  const { stage, hvidMm, kind } = page.cornea[eye];
  const name = eyeWords.name(eye);
  return (
    <div className={`flex flex-col gap-1 ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <Segment
        label={t('shapeOf', { eye: name })}
        values={SHAPES}
        value={SHAPES.find((s) => s === cornea) ?? null}
        word={(s) => t(`shape.${s}`)}
        disabled={closed || page.busy}
        onChoose={(s) => void page.say(eye, 'cornea', s)}
      />
      {kind === 'prolate' ? (
        <span className="flex gap-2 items-center">
          <span className="note">{t('stage')}</span>
          <Segment
            label={t('stageOf', { eye: name })}
            values={STAGES}
            value={STAGES.find((s) => s === stage) ?? null}
            word={(s) => String(s)}
            disabled={closed || page.busy}
            onChoose={(s) => void page.say(eye, 'coneStage', s)}
          />
        </span>
      ) : null}
      <span className="note">{hvidMm === null ? t('noHvid') : t('hvid', { mm: hvidMm.toFixed(1) })}</span>
    </div>
  );
}

/** Why these lenses, and how a lens of a set is fitted. */
function Reasons({ page }: { readonly page: SetsHere }) {
  const t = useTranslations('diagnosticSet');
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const waits = page.going.some((e) => page.chosen[e] !== null && !mayGoOn(page.stateOf(page.chosen[e])));
  return (
    <>
      <h2 className="mb-3">{t('reasoning')}</h2>
      {waits ? (
        <p className="mb-3">
          <Stated state="stop">{t('waits')}</Stated>{' '}
          <Link className="underline" href="/drawer/sets" prefetch={false}>
            {t('toSets')}
          </Link>
        </p>
      ) : null}
      {(['right', 'left'] as const).map((e) =>
        page.tried[e]?.fit === 'loose' || page.tried[e]?.fit === 'tight' ? (
          <p key={e} className="mb-3">
            <strong>{t(`tried.${page.tried[e].fit}`, { eye: eyeWords.short(e), curve: page.tried[e].baseCurve.toFixed(1) })}</strong>
          </p>
        ) : null,
      )}
      <ol className="list-decimal pl-5 mb-3">
        {(['one', 'two', 'three', 'four'] as const).map((line) => (
          <li key={line} className="mb-1">
            {t(`how.${line}`)}
          </li>
        ))}
      </ol>
      <p className="note">{t('basis')}</p>
      <p className="note mt-3">
        <Link className="underline" href={`/visits/${record.visit.id}/eye-health`} prefetch={false}>
          {t('toHealth')}
        </Link>
      </p>
    </>
  );
}

export const DiagnosticSetStep = withWords({ diagnosticSet: diagnosticSetWords, setReady: setReadyWords }, DiagnosticSetBody);
