'use client';
import Link from 'next/link';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, type OldBoxes as Boxes } from '@/core';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import oldBoxesWords from '@/i18n/messages/en/oldBoxes.messages.json';
import deskProblems from '@/i18n/messages/en/deskProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge } from '@/ui/marks';
import { useEyeWords } from '../eyeWords';
import { useSending } from '../useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../words';

/** Boxes of a power that was changed: nobody wears them; unopened ones are exchanged by one press. */
function OldBoxesList({ boxes, onDone }: { readonly boxes: readonly Boxes[]; readonly onDone: () => void }) {
  const t = useTranslations('oldBoxes');
  return boxes.length === 0 ? null : (
    <section className="py-3 border-b border-rule" aria-label={t('title')} data-testid="old-boxes">
      <h2>{t('title')}</h2>
      <p className="label pb-1">{t('note')}</p>
      {boxes.map((of) => (
        <OldLine key={`${of.orderLineId} ${of.at} ${of.packs}`} of={of} onDone={onDone} />
      ))}
    </section>
  );
}

function OldLine({ of, onDone }: { readonly of: Boxes; readonly onDone: () => void }) {
  const t = useTranslations('oldBoxes');
  const eyeWords = useEyeWords();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [typed, setTyped] = useState(String(of.packs));
  const { send, problem, busy } = useSending<'openClaim'>(onDone);
  const { orderId, orderLineId, orderNumber, eye, lens, at } = of;
  const power = formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg });
  const packs = /^\d{1,2}$/.test(typed.trim()) ? Number(typed) : Number.NaN;
  const found = problemAt(problem, 'packs');
  return (
    <div className="flex flex-wrap items-center gap-x-4 py-1">
      <p className="grow basis-[280px]">
        <EyeBadge eye={eye} />{' '}
        <span className="value">{t('line', { eye: eyeWords.name(eye), power: `${lens.familyName} ${power}`, number: orderNumber })}</span>
        <span className="label block">{`${of.packs} ${t(`at.${at}`)}`}</span>
      </p>
      {at === 'coming' ? (
        <Link className="btn" href={`/orders/${orderId}`} prefetch={false}>
          {t('order', { number: orderNumber })}
        </Link>
      ) : (
        <>
          <Field
            className="w-20"
            label={t('count')}
            value={typed}
            onValue={setTyped}
            problem={found ? words(found.code, found.data) : null}
            inputMode="numeric"
          />
          <Button disabled={busy} onClick={() => void send('openClaim', { orderId, orderLineId, kind: 'exchange', packs, note: '' })}>
            {t('exchange')}
          </Button>
        </>
      )}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}

export const OldBoxes = withWords({ eyes: eyesWords, oldBoxes: oldBoxesWords, problems: deskProblems }, OldBoxesList);
