'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Bridge as Gap, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { useEyeWords } from '../common/eyeWords';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import type { ReorderPageState } from './useReorder';

/** A whole number as typed, or NaN, which the server refuses at its field. */
const typedCount = (text: string): number => (/^\d{1,2}$/.test(text.trim()) ? Number(text) : Number.NaN);

/** Days without a lens until boxes come, and the trial lenses of the same power that would carry the wearer over them. */
export function Bridge({ page, onDone }: { readonly page: ReorderPageState; readonly onDone: () => void }) {
  const t = useTranslations('reorder.bridge');
  const { bridges } = page;
  const { bridged } = page;
  const { send, problem, busy } = useSending<'withdrawBridge'>(onDone);
  const refusal = useRefusalWords();
  if (bridged !== null)
    return (
      <section className="py-3 border-b border-rule" aria-label={t('title')} data-testid="bridged">
        <Stated state="ok">{t('given', { right: bridged.right, left: bridged.left })}</Stated>{' '}
        <Button look="quiet" disabled={busy} onClick={() => void send('withdrawBridge', { visitId: bridged.visitId, reason: t('undone') })}>
          {t('undo')}
        </Button>
        {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      </section>
    );
  return EYES.every((eye) => bridges[eye] === null) ? null : <Gaps page={page} onGiven={onDone} />;
}

function Gaps({ page, onGiven }: { readonly page: ReorderPageState; readonly onGiven: () => void }) {
  const t = useTranslations('reorder.bridge');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { bridges, prescription, file, asked } = page;
  const [typed, setTyped] = useState<Partial<Record<Eye, string>>>({});
  const [identityAsked, setIdentityAsked] = useState(false);
  const { send, problem, busy } = useSending<'bridgeWithTrials'>(onGiven);
  const there = (gap: Gap): number => page.trials[gap.lens.id] ?? 0;
  const textOf = (eye: Eye): string => typed[eye] ?? String(bridges[eye] ? Math.min(bridges[eye].lenses, there(bridges[eye])) : 0);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const give = (): void => {
    if (!prescription) return;
    const of = { wearerId: file.wearer.id, prescriptionId: prescription.id, right: typedCount(textOf('right')), left: typedCount(textOf('left')) };
    // What was not pressed is refused by name.
    void send('bridgeWithTrials', { ...of, noDanger: asked.noDanger as true, identityAsked: identityAsked as true });
  };
  const any = EYES.some((eye) => bridges[eye] && there(bridges[eye]) > 0);
  return (
    <section className="py-3 border-b border-rule" aria-label={t('title')} data-testid="bridge">
      <h2>{t('title')}</h2>
      {EYES.map((eye) => {
        const gap = bridges[eye];
        return gap ? (
          <EyeGap
            key={eye}
            eye={eye}
            gap={gap}
            there={there(gap)}
            text={textOf(eye)}
            onText={(text) => setTyped({ ...typed, [eye]: text })}
            problem={at(eye)}
          />
        ) : null;
      })}
      {any ? (
        <>
          <Identity wearer={file.wearer} asked={identityAsked} onAsked={setIdentityAsked} problem={at('identityAsked')} />
          {at('noDanger') ? <ProblemLine>{t('askDanger')}</ProblemLine> : null}
          {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
          <Button disabled={busy} onClick={give}>
            {t('give')}
          </Button>
        </>
      ) : null}
    </section>
  );
}

function Identity({
  wearer,
  asked,
  onAsked,
  problem,
}: {
  readonly wearer: ReorderPageState['file']['wearer'];
  readonly asked: boolean;
  readonly onAsked: (asked: boolean) => void;
  readonly problem: string | null;
}) {
  const t = useTranslations('reorder.bridge');
  return (
    <div className="pb-2">
      <label className="flex items-center gap-2 min-h-8">
        <input type="checkbox" className="w-5 h-5" checked={asked} onChange={(event) => onAsked(event.target.checked)} />
        {t('asked', { name: wearer.name, day: formatDay(wearer.birthDate) })}
      </label>
      {problem ? <ProblemLine>{problem}</ProblemLine> : null}
    </div>
  );
}

function EyeGap({
  eye,
  gap,
  there,
  text,
  onText,
  problem,
}: {
  readonly eye: Eye;
  readonly gap: Gap;
  readonly there: number;
  readonly text: string;
  readonly onText: (text: string) => void;
  readonly problem: string | null;
}) {
  const t = useTranslations('reorder.bridge');
  const eyeWords = useEyeWords();
  return (
    <div className="flex flex-wrap items-start gap-x-4 py-1">
      <p className="grow basis-[300px] pt-1">
        <EyeBadge eye={eye} />{' '}
        <Stated state="watch">{t('gap', { eye: eyeWords.name(eye), from: formatDay(gap.from), until: formatDay(gap.until), count: there })}</Stated>
      </p>
      {there > 0 ? (
        <Field className="w-[110px]" label={t('count', { eye: eyeWords.short(eye) })} value={text} onValue={onText} problem={problem} inputMode="numeric" />
      ) : null}
    </div>
  );
}
