'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { CLAIM_KINDS, type ClaimKind, type ClaimStep, type Order, type OrderClaim } from '@/core';
import { formatMoment } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** What is wrong with boxes of an order, until the supplier has made it good. */
export function Claims({ order, onDone }: { readonly order: Order; readonly onDone: () => void }) {
  const t = useTranslations('orderPage');
  const [opening, setOpening] = useState(false);
  return (
    <section aria-label={t('claims')}>
      <div className="flex gap-4 items-baseline pt-4 pb-1 border-b border-rule-2">
        <h2>{t('claims')}</h2>
        <Button look="quiet" onClick={() => setOpening(true)}>
          {t('openClaim')}
        </Button>
      </div>
      {order.claims.length === 0 ? <p className="label py-2">{t('noClaims')}</p> : null}
      {order.claims.map((claim) => (
        <Claim key={claim.id} order={order} claim={claim} onDone={onDone} />
      ))}
      {opening ? <OpenClaim order={order} onClose={() => setOpening(false)} onDone={onDone} /> : null}
    </section>
  );
}

const NEXT: readonly (readonly [ClaimStep, 'told' | 'replaced' | 'credited' | 'claimRefused' | 'withdrawn'])[] = [
  ['told', 'told'],
  ['replaced', 'replaced'],
  ['credited', 'credited'],
  ['refused', 'claimRefused'],
  ['withdrawn', 'withdrawn'],
];

function Claim({ order, claim, onDone }: { readonly order: Order; readonly claim: OrderClaim; readonly onDone: () => void }) {
  const t = useTranslations('orderPage');
  const story = useTranslations('orderStory');
  const refusal = useRefusalWords();
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { send, problem, busy } = useSending<'stepClaim'>(onDone);
  const line = order.lines.find((l) => l.id === claim.orderLineId);
  const open = claim.step === null || claim.step === 'told';
  return (
    <div className="border-b border-rule py-2" data-testid="claim">
      <div className="flex justify-between gap-4">
        <Stated state={open ? 'watch' : 'ok'}>
          {`${t('claimLine', { eye: line ? eyeWords.name(line.eye) : '', kind: story(`claim.${claim.kind}`), count: claim.packs })}: ${story(`step.${claim.step ?? 'none'}`)}`}
        </Stated>
        <span className="label">{`${formatMoment(claim.openedAt, session.practice.timeZone)} · ${claim.openedByName}`}</span>
      </div>
      {claim.note === null ? null : <p className="note">{claim.note}</p>}
      {open ? (
        <div className="flex gap-2 pt-1 flex-wrap">
          {NEXT.filter(([step]) => step !== claim.step).map(([step, word]) => (
            <Button key={step} look="quiet" disabled={busy} onClick={() => void send('stepClaim', { claimId: claim.id, step, note: '' })}>
              {t(word)}
            </Button>
          ))}
        </div>
      ) : null}
      {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}

function OpenClaim({ order, onClose, onDone }: { readonly order: Order; readonly onClose: () => void; readonly onDone: () => void }) {
  const t = useTranslations('orderPage');
  const story = useTranslations('orderStory');
  const eyeWords = useEyeWords();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [lineId, setLineId] = useState<string | null>(order.lines.length === 1 ? (order.lines[0]?.id ?? null) : null);
  const [kind, setKind] = useState<ClaimKind>('wrong');
  const [packs, setPacks] = useState('1');
  const [note, setNote] = useState('');
  const { send, problem, busy } = useSending<'openClaim'>(onDone);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const keep = async (): Promise<void> => {
    const count = /^\d{1,2}$/.test(packs.trim()) ? Number(packs) : NaN;
    // A line that was not pressed is refused by name.
    if (await send('openClaim', { orderId: order.id, orderLineId: lineId ?? '', kind, packs: count, note })) onClose();
  };
  return (
    <Panel open onClose={onClose} title={t('claimTitle')}>
      <div className="flex flex-col gap-3">
        <Segment
          label={t('claimEye')}
          values={order.lines.map((l) => l.id)}
          value={lineId}
          word={(id) => eyeWords.name(order.lines.find((l) => l.id === id)?.eye ?? 'right')}
          onChoose={setLineId}
        />
        {at('orderLineId') ? <ProblemLine>{at('orderLineId')}</ProblemLine> : null}
        <Segment kind="wrapping" label={t('claimKind')} values={CLAIM_KINDS} value={kind} word={(k) => story(`claim.${k}`)} onChoose={setKind} />
        <Field label={t('claimCount')} value={packs} onValue={setPacks} problem={at('packs')} inputMode="numeric" />
        <Field label={t('note')} value={note} onValue={setNote} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <Button look="act" disabled={busy} onClick={() => void keep()}>
          {t('keepClaim')}
        </Button>
      </div>
    </Panel>
  );
}
