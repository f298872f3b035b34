'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { boxesOf, EYES, formatRefraction, type Eye, type Order } from '@/core';
import type { Problem } from '@/lib/outcome';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { EyeBadge } from '@/ui/marks';
import { useEyeWords } from '../../../common/eyeWords';
import { useServer } from '../../../common/ServerProvider';
import { problemAt, useProblemWords, useRefusalWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';

type BoxField = 'packs' | 'lot' | 'expiresOn' | 'power';
type TypedBoxes = Readonly<Partial<Record<`${Eye}${BoxField}`, string>>>;

/** Boxes of an order that came, read by hand: an eye whose lot is not typed has not come. */
export function BoxesCame({ order }: { readonly order: Order }) {
  const t = useTranslations('supply');
  const refusal = useRefusalWords();
  const { command } = useServer();
  const { refresh } = useVisit();
  const [typed, setTyped] = useState<TypedBoxes>({});
  const [problem, setProblem] = useState<Problem | null>(null);
  const [busy, setBusy] = useState(false);
  const leftOf = (eye: Eye): number => {
    const boxes = boxesOf(order, eye);
    return boxes ? boxes.ordered - boxes.received : 0;
  };
  const eyes = EYES.filter((eye) => leftOf(eye) > 0);
  if (eyes.length === 0) return null;
  const boxOf = (eye: Eye) => {
    const lot = typed[`${eye}lot`] ?? '';
    if (!eyes.includes(eye) || lot.trim() === '') return null;
    const packs = (typed[`${eye}packs`] ?? String(leftOf(eye))).trim();
    return { packs: /^\d+$/.test(packs) ? Number(packs) : 0, lot, expiresOn: typed[`${eye}expiresOn`] ?? '', power: typed[`${eye}power`] ?? null };
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setBusy(true);
    const done = await command('recordReceipt', { orderId: order.id, right: boxOf('right'), left: boxOf('left') });
    setBusy(false);
    if (!done) return;
    setProblem(done.ok ? null : done.error);
    if (!done.ok) return;
    setTyped({});
    await refresh();
  };
  return (
    <form onSubmit={(event) => void submit(event)} className="py-3" data-testid="boxes-came">
      <h3 className="font-[620]">{t('cameTitle')}</h3>
      <p className="note mb-2">{t('cameLine')}</p>
      {eyes.map((eye) => (
        <BoxLine key={eye} order={order} eye={eye} left={leftOf(eye)} typed={typed} onTyped={setTyped} problem={problem} />
      ))}
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
      <Button type="submit" disabled={busy || EYES.every((eye) => boxOf(eye) === null)}>
        {t('cameDo')}
      </Button>
    </form>
  );
}

function BoxLine({
  order,
  eye,
  left,
  typed,
  onTyped,
  problem,
}: {
  readonly order: Order;
  readonly eye: Eye;
  readonly left: number;
  readonly typed: TypedBoxes;
  readonly onTyped: (typed: TypedBoxes) => void;
  readonly problem: Problem | null;
}) {
  const t = useTranslations('supply');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { record } = useVisit();
  const line = order.lines.find((l) => l.eye === eye);
  const lens = line?.lensId ? record.lenses[line.lensId] : undefined;
  const field = (part: BoxField, label: string, width: string) => {
    const found = problemAt(problem, eye, part);
    return (
      <Field
        className={width}
        label={label}
        value={typed[`${eye}${part}`] ?? (part === 'packs' ? String(left) : '')}
        onValue={(value) => onTyped({ ...typed, [`${eye}${part}`]: value })}
        problem={found ? words(found.code, found.data) : null}
        inputMode={part === 'packs' ? 'numeric' : 'text'}
        autoComplete="off"
      />
    );
  };
  const name = eyeWords.short(eye);
  const power = lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : t('cameRaw');
  return (
    <div className="flex flex-wrap gap-3 items-start" data-testid={`box-${eye}`}>
      <span className="flex gap-2 items-center w-[220px] pt-6">
        <EyeBadge eye={eye} />
        <span>
          <span className="power">{power}</span>
          {lens ? <span className="note block">{lens.familyName}</span> : null}
        </span>
      </span>
      {line?.lensId === null ? field('power', t('camePower', { eye: name }), 'w-[180px]') : null}
      {field('packs', t('camePacks', { eye: name }), 'w-20')}
      {field('lot', t('cameLot', { eye: name }), 'w-[140px]')}
      {field('expiresOn', t('cameExpires', { eye: name }), 'w-[140px]')}
    </div>
  );
}
