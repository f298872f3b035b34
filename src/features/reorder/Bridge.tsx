'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Bridge as Gap, type Eye } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge, Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
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
  return EYES.every((eye) => bridges[eye] === null) ? null : <Gaps page={page} onDone={onDone} />;
}

/** The days without a lens in a line an eye, and the press that gives trial lenses home. */
function Gaps({ page, onDone }: { readonly page: ReorderPageState; readonly onDone: () => void }) {
  const t = useTranslations('reorder.bridge');
  const { bridges } = page;
  const [giving, setGiving] = useState(false);
  const there = (gap: Gap): number => page.trials[gap.lens.id] ?? 0;
  return (
    <section className="py-2 border-b border-rule" aria-label={t('title')} data-testid="bridge">
      {EYES.map((eye) => {
        const gap = bridges[eye];
        return gap ? (
          <p key={eye} className="flex gap-2 items-center py-1">
            <EyeBadge eye={eye} />
            <Stated state="watch">{t('gap', { from: formatDay(gap.from), until: formatDay(gap.until), count: there(gap) })}</Stated>
          </p>
        ) : null;
      })}
      {EYES.some((eye) => bridges[eye] && there(bridges[eye]) > 0) ? (
        <Button look="quiet" onClick={() => setGiving(true)}>
          {t('give')}
        </Button>
      ) : null}
      {giving ? <GivePanel page={page} there={there} onGiven={onDone} onClose={() => setGiving(false)} /> : null}
    </section>
  );
}

/** How many of each eye go home, and what is asked of whoever takes them. */
function GivePanel({
  page,
  there,
  onGiven,
  onClose,
}: {
  readonly page: ReorderPageState;
  readonly there: (gap: Gap) => number;
  readonly onGiven: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('reorder.bridge');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const eyeWords = useEyeWords();
  const { bridges, prescription, file, asked } = page;
  const { wearer } = file;
  const [typed, setTyped] = useState<Partial<Record<Eye, string>>>({});
  const [identityAsked, setIdentityAsked] = useState(false);
  const { send, problem, busy } = useSending<'bridgeWithTrials'>(onGiven);
  const textOf = (eye: Eye): string => typed[eye] ?? String(bridges[eye] ? Math.min(bridges[eye].lenses, there(bridges[eye])) : 0);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const give = async (): Promise<void> => {
    if (!prescription) return;
    const of = { wearerId: wearer.id, prescriptionId: prescription.id, right: typedCount(textOf('right')), left: typedCount(textOf('left')) };
    // What was not pressed is refused by name.
    if (await send('bridgeWithTrials', { ...of, noDanger: asked.noDanger as true, identityAsked: identityAsked as true })) onClose();
  };
  const tick = (label: string, checked: boolean, onTick: (on: boolean) => void, fault: string | null) => (
    <div>
      <label className="flex items-center gap-2 min-h-8">
        <input type="checkbox" className="w-5 h-5" checked={checked} onChange={(event) => onTick(event.target.checked)} />
        {label}
      </label>
      {fault ? <ProblemLine>{fault}</ProblemLine> : null}
    </div>
  );
  return (
    <Panel open onClose={onClose} title={t('title')}>
      <div className="flex flex-col gap-3">
        <div className="flex gap-4">
          {EYES.map((eye) =>
            bridges[eye] ? (
              <Field
                key={eye}
                className="w-[130px]"
                label={t('count', { eye: eyeWords.short(eye) })}
                value={textOf(eye)}
                onValue={(text) => setTyped({ ...typed, [eye]: text })}
                problem={at(eye)}
                inputMode="numeric"
              />
            ) : null,
          )}
        </div>
        {tick(t('noDanger'), asked.noDanger, (noDanger) => page.setAsked({ ...asked, noDanger }), at('noDanger'))}
        {tick(t('asked', { name: wearer.name, day: formatDay(wearer.birthDate) }), identityAsked, setIdentityAsked, at('identityAsked'))}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <Button look="act" className="self-start" disabled={busy} onClick={() => void give()}>
          {t('giveDo')}
        </Button>
      </div>
    </Panel>
  );
}
