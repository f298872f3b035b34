'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import type { AwaitedLine, AwaitedOrder } from '@/db/orderDesk';
import type { Problem } from '@/lib/outcome';
import drawerProblems from '@/i18n/messages/en/drawerProblems.messages.json';
import visitProblems from '@/i18n/messages/en/visitProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge } from '@/ui/marks';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../common/eyeWords';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { powerWords } from './powerWords';

type Part = 'packs' | 'lot' | 'expiresOn' | 'power';
type Typed = Readonly<Partial<Record<`${Eye}${Part}`, string>>>;

/** What came of an order, read by hand from each box: an eye whose lot is not typed has not come. */
function Receiving({ order, onDone, onClose }: { readonly order: AwaitedOrder; readonly onDone: () => void; readonly onClose: () => void }) {
  const t = useTranslations('orders');
  const refusal = useRefusalWords();
  const [typed, setTyped] = useState<Typed>({});
  const [despite, setDespite] = useState('');
  const { send, problem, busy } = useSending<'recordReceipt'>(() => undefined);
  const lines = order.lines.filter((line) => line.received < line.ordered);
  const boxOf = (eye: Eye) => {
    const line = lines.find((l) => l.eye === eye);
    const lot = typed[`${eye}lot`] ?? '';
    if (!line || lot.trim() === '') return null;
    const packs = (typed[`${eye}packs`] ?? String(line.ordered - line.received)).trim();
    return { packs: /^\d+$/.test(packs) ? Number(packs) : 0, lot, expiresOn: typed[`${eye}expiresOn`] ?? '', power: typed[`${eye}power`] ?? null };
  };
  const boxes = { right: boxOf('right'), left: boxOf('left') };
  const otherDay = despite !== '' || order.lines.some((line) => problemAt(problem, line.eye, 'expiresOn')?.code === 'lotOtherDay');
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (await send('recordReceipt', { orderId: order.orderId, ...boxes, despiteReason: despite })) onDone();
  };
  return (
    <Panel open wide onClose={onClose} title={t('receiveTitle', { number: order.number, name: order.wearerName })}>
      <form onSubmit={(event) => void submit(event)} data-testid="receive-order">
        <p className="label pb-2">{t('receiveLine')}</p>
        {lines.map((line, i) => (
          <BoxFields key={line.eye} line={line} trial={order.kind === 'trial'} first={i === 0} typed={typed} onTyped={setTyped} problem={problem} />
        ))}
        {otherDay ? <Field label={t('despite')} value={despite} onValue={setDespite} autoComplete="off" /> : null}
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <div className="flex gap-3 justify-end pt-2">
          <Button onClick={onClose}>{t('cancel')}</Button>
          <Button look="act" type="submit" disabled={busy || (boxes.right === null && boxes.left === null)}>
            {t('do')}
          </Button>
        </div>
      </form>
    </Panel>
  );
}

function BoxFields({
  line,
  trial,
  first,
  typed,
  onTyped,
  problem,
}: {
  readonly line: AwaitedLine;
  readonly trial: boolean;
  readonly first: boolean;
  readonly typed: Typed;
  readonly onTyped: (typed: Typed) => void;
  readonly problem: Problem | null;
}) {
  const t = useTranslations('orders');
  const words = useProblemWords();
  const { eye } = line;
  const name = useEyeWords().short(eye);
  const field = (part: Part, label: string, width: string, preset = '') => {
    const found = problemAt(problem, eye, part);
    return (
      <Field
        className={width}
        label={label}
        value={typed[`${eye}${part}`] ?? preset}
        onValue={(value) => onTyped({ ...typed, [`${eye}${part}`]: value })}
        problem={found ? words(found.code, found.data) : null}
        inputMode={part === 'packs' ? 'numeric' : 'text'}
        autoFocus={first && part === 'lot'}
        autoComplete="off"
      />
    );
  };
  return (
    <div className="flex flex-wrap gap-3 items-start">
      <span className="flex gap-2 items-center w-[210px] pt-6">
        <EyeBadge eye={eye} />
        <span>
          <span className="power">{powerWords(line) ?? t('raw')}</span>
          <span className="note block">{line.familyName}</span>
        </span>
      </span>
      {line.power === null ? field('power', t('power', { eye: name }), 'w-[180px]') : null}
      {field('packs', t(trial ? 'countTrial' : 'count', { eye: name }), 'w-24', String(line.ordered - line.received))}
      {field('lot', t('lot', { eye: name }), 'w-[140px]')}
      {field('expiresOn', t('expires', { eye: name }), 'w-[140px]')}
    </div>
  );
}

export const ReceiveOrder = withWords({ problems: { ...drawerProblems, ...visitProblems } }, Receiving);
