'use client';
import { useState, type FormEvent, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye, OrderKind } from '@/core';
import type { Problem } from '@/lib/outcome';
import { formatDay } from '@/i18n/format';
import receiptWords from '@/i18n/messages/en/receipt.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge } from '@/ui/marks';
import { useEyeWords } from '../eyeWords';
import { useSending } from '../useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../words';
import { ScanBox } from './ScanBox';
import { useScanned } from './useScanned';

/** What is still to come for one eye. */
export interface AwaitedBoxes {
  readonly eye: Eye;
  /** Power with its addition, in words; null where a laboratory works it out and the box says it. */
  readonly power: string | null;
  readonly familyName: string | null;
  readonly missing: number;
}
export interface ReceiptFormProps {
  readonly orderId: string;
  readonly kind: OrderKind;
  readonly lines: readonly AwaitedBoxes[];
  readonly onDone: () => void;
  /** Whether receiving is what the screen is for: its button is the one to press next, it is ready for the first box. */
  readonly first?: boolean;
  /** Beside the button. */
  readonly children?: ReactNode;
}

type Part = 'packs' | 'lot' | 'expiresOn' | 'power';
type Typed = Readonly<Partial<Record<`${Eye}${Part}`, string>>>;

/** What came of an order, read by hand from each box: an eye whose lot is not typed has not come. */
function Receiving({ orderId, kind, lines, onDone, first = false, children }: ReceiptFormProps) {
  const t = useTranslations('receipt');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const [typed, setTyped] = useState<Typed>({});
  const [despite, setDespite] = useState('');
  const { scanned, leftOf, take, forget } = useScanned(kind, lines, (eye, boxes) => {
    const last = boxes.at(-1);
    setTyped((now) => ({
      ...now,
      [`${eye}packs`]: String(boxes.length),
      ...(last?.lot == null ? {} : { [`${eye}lot`]: last.lot }),
      ...(last?.expiresOn == null ? {} : { [`${eye}expiresOn`]: formatDay(last.expiresOn) }),
    }));
  });
  const [relearn, setRelearn] = useState('');
  const { send, problem, busy } = useSending<'recordReceipt'>(() => undefined);
  const boxOf = (eye: Eye) => {
    const line = lines.find((l) => l.eye === eye);
    const lot = typed[`${eye}lot`] ?? '';
    if (!line || lot.trim() === '') return null;
    const packs = (typed[`${eye}packs`] ?? String(line.missing)).trim();
    const codes = scanned[eye].map(({ gtin, serial }) => ({ gtin, serial }));
    return { packs: /^\d+$/.test(packs) ? Number(packs) : 0, lot, expiresOn: typed[`${eye}expiresOn`] ?? '', power: typed[`${eye}power`] ?? null, codes };
  };
  const ofCodes = lines.flatMap(({ eye }) => problemAt(problem, eye, 'codes') ?? []);
  const boxes = { right: boxOf('right'), left: boxOf('left') };
  const otherDay = despite !== '' || lines.some(({ eye }) => problemAt(problem, eye, 'expiresOn')?.code === 'lotOtherDay');
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    if (!(await send('recordReceipt', { orderId, ...boxes, despiteReason: despite, relearnReason: relearn }))) return;
    setTyped({});
    forget();
    setDespite('');
    setRelearn('');
    onDone();
  };
  return (
    <form onSubmit={(event) => void submit(event)} data-testid="receipt">
      <ScanBox orderId={orderId} lines={lines} leftOf={leftOf} take={take} first={first} />
      <p className="label pb-2">{t('line')}</p>
      {lines.map((line) => (
        <BoxFields key={line.eye} line={line} kind={kind} typed={typed} onTyped={setTyped} problem={problem} />
      ))}
      {otherDay ? <Field label={t('despite')} value={despite} onValue={setDespite} autoComplete="off" /> : null}
      {ofCodes.map((found) => (
        <ProblemLine key={found.path.join()}>{words(found.code, found.data)}</ProblemLine>
      ))}
      {ofCodes.length > 0 || relearn !== '' ? <Field label={t('relearn')} value={relearn} onValue={setRelearn} autoComplete="off" /> : null}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <div className={`flex gap-3 pt-2 ${first ? 'justify-end' : ''}`}>
        {children}
        <Button look={first ? 'act' : 'plain'} type="submit" disabled={busy || (boxes.right === null && boxes.left === null)}>
          {t('do')}
        </Button>
      </div>
    </form>
  );
}

function BoxFields({
  line,
  kind,
  typed,
  onTyped,
  problem,
}: {
  readonly line: AwaitedBoxes;
  readonly kind: OrderKind;
  readonly typed: Typed;
  readonly onTyped: (typed: Typed) => void;
  readonly problem: Problem | null;
}) {
  const t = useTranslations('receipt');
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
        autoComplete="off"
      />
    );
  };
  return (
    <div className="flex flex-wrap gap-3 items-start" data-testid={`box-${eye}`}>
      <span className="flex gap-2 items-center w-[210px] pt-6">
        <EyeBadge eye={eye} />
        <span>
          <span className="power">{line.power ?? t('raw')}</span>
          {line.familyName ? <span className="note block">{line.familyName}</span> : null}
        </span>
      </span>
      {line.power === null ? field('power', t('power', { eye: name }), 'w-[180px]') : null}
      {field('packs', t(kind === 'trial' ? 'lenses' : 'packs', { eye: name }), 'w-24', String(line.missing))}
      {field('lot', t('lot', { eye: name }), 'w-[140px]')}
      {field('expiresOn', t('expires', { eye: name }), 'w-[140px]')}
    </div>
  );
}

export const ReceiptForm = withWords({ receipt: receiptWords }, Receiving);
