'use client';
import { useTranslations } from 'use-intl';
import { LESION_KINDS, lesionProblem, type CornealLesion, type Eye } from '@/core';
import { Button } from '@/ui/Button';
import { CorneaMap } from '@/ui/CorneaMap';
import { Field } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { SpineRow } from '@/ui/Spine';
import { useEyeWords } from '../../../common/eyeWords';
import { useProblemWords } from '../../../common/words';
import { figuresOf, isDrawable } from './model';
import type { RedEye } from './useRedEye';

/** What is seen on each cornea, placed and measured in millimetres. */
export function CorneaRow({ page }: { readonly page: RedEye }) {
  const t = useTranslations('redEye');
  return <SpineRow label={t('drawing')} note={t('drawingNote')} right={<Drawing page={page} eye="right" />} left={<Drawing page={page} eye="left" />} />;
}

function useLesionWords(): (lesion: CornealLesion) => string {
  const t = useTranslations('redEye');
  return (lesion) => t('where', { kind: t(`kinds.${lesion.kind}`), ...figuresOf(lesion) });
}

function Drawing({ page, eye }: { readonly page: RedEye; readonly eye: Eye }) {
  const t = useTranslations('redEye');
  const eyeWords = useEyeWords();
  const words = useLesionWords();
  const placing = page.placing[eye];
  const drawable = isDrawable(placing) ? placing : null;
  const lesions = page.health.lesions[eye];
  return (
    <span className={`flex flex-col gap-2 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <CorneaMap
        eye={eye}
        lesions={lesions}
        placing={drawable}
        onPlace={(lesion) => page.place(eye, lesion)}
        disabled={page.closed}
        label={t('mapLabel', { eye: eyeWords.name(eye) })}
        valueText={drawable ? words(drawable) : t('nothingPlaced')}
        words={{ nose: t('nose'), ear: t('ear') }}
      />
      <Segment
        label={t('kindLabel', { eye: eyeWords.name(eye) })}
        values={LESION_KINDS}
        value={placing?.kind}
        word={(kind) => t(`kinds.${kind}`)}
        disabled={page.closed}
        onChoose={(kind) => page.begin(eye, kind)}
      />
      {placing ? <Sizes page={page} eye={eye} placing={placing} /> : null}
      {lesions.map((lesion) => (
        <span key={lesion.id} className="flex gap-3 items-center flex-wrap" data-testid={`lesion-${eye}`}>
          <span className="value">{words(lesion)}</span>
          <Button look="quiet" disabled={page.closed} aria-label={t('removeLabel', { what: words(lesion) })} onClick={() => page.remove(lesion)}>
            {t('removed')}
          </Button>
        </span>
      ))}
    </span>
  );
}

/** Its size, typed where the beam was read, and the press that keeps it. */
function Sizes({ page, eye, placing }: { readonly page: RedEye; readonly eye: Eye; readonly placing: CornealLesion }) {
  const t = useTranslations('redEye');
  const problemWords = useProblemWords();
  const { draft } = page;
  const fault = lesionProblem(placing);
  return (
    <form
      className={`flex gap-3 items-start flex-wrap ${eye === 'right' ? 'justify-end' : ''}`}
      onSubmit={(event) => {
        event.preventDefault();
        if (!fault) page.keepLesion(eye);
      }}
    >
      <Field
        className="w-[104px]"
        label={t('long')}
        value={draft.body[`${eye}Long`] ?? ''}
        onValue={(v) => draft.set(`${eye}Long`, v)}
        inputMode="decimal"
        autoComplete="off"
      />
      <Field
        className="w-[104px]"
        label={t('across')}
        value={draft.body[`${eye}Across`] ?? ''}
        onValue={(v) => draft.set(`${eye}Across`, v)}
        inputMode="decimal"
        autoComplete="off"
        problem={fault ? problemWords(fault.code, fault.data) : null}
      />
      <span className="flex gap-3 items-center pt-5">
        <Button look="plain" type="submit" disabled={page.closed || fault !== null}>
          {t('keep')}
        </Button>
        <Button look="quiet" onClick={() => page.place(eye, null)}>
          {t('drop')}
        </Button>
      </span>
    </form>
  );
}
