'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, LOSS_REASONS, type Eye, type LossReason, type WearerFile } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { useEyeWords } from '../common/eyeWords';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';

/** A lens at home is gone: which eye, why, when. Those told before stand below, and can be taken back. */
export function LogLoss({
  file,
  onDone,
  onClose,
}: {
  readonly file: Pick<WearerFile, 'wearer' | 'losses'>;
  readonly onDone: () => void;
  readonly onClose: () => void;
}) {
  const t = useTranslations('reorder.loss');
  const eyeWords = useEyeWords();
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const [eye, setEye] = useState<Eye | null>(null);
  const [why, setWhy] = useState<LossReason>('torn');
  const [lenses, setLenses] = useState('1');
  const [lostOn, setLostOn] = useState(formatDay(session.today));
  const { send, problem, busy } = useSending<'recordLoss' | 'withdrawLoss'>(onDone);
  const at = (field: string): string | null => {
    const found = problemAt(problem, field);
    return found ? words(found.code, found.data) : null;
  };
  const keep = async (): Promise<void> => {
    const count = /^\d{1,2}$/.test(lenses.trim()) ? Number(lenses) : NaN;
    // An eye that was not pressed is refused by name.
    if (await send('recordLoss', { wearerId: file.wearer.id, eye: eye as Eye, why, lenses: count, lostOn })) onClose();
  };
  return (
    <Panel open onClose={onClose} title={t('title')}>
      <div className="flex flex-col gap-3">
        <Segment label={t('eye')} values={EYES} value={eye} word={(e) => eyeWords.name(e)} onChoose={setEye} />
        {at('eye') ? <ProblemLine>{at('eye')}</ProblemLine> : null}
        <Segment kind="wrapping" label={t('why')} values={LOSS_REASONS} value={why} word={(w) => t(`reason.${w}`)} onChoose={setWhy} />
        <Field label={t('count')} value={lenses} onValue={setLenses} problem={at('lenses')} inputMode="numeric" />
        <Field label={t('on')} value={lostOn} onValue={setLostOn} problem={at('lostOn')} />
        {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
        <Button look="act" disabled={busy} onClick={() => void keep()}>
          {t('keep')}
        </Button>
        {file.losses.length > 0 ? (
          <ul className="border-t border-rule pt-2">
            {file.losses.map((loss) => (
              <li key={loss.id} className="flex items-center gap-2 py-1">
                <span>{t('told', { eye: eyeWords.name(loss.eye), count: loss.lenses, why: t(`reason.${loss.why}`), day: formatDay(loss.lostOn) })}</span>
                <Button look="quiet" disabled={busy} onClick={() => void send('withdrawLoss', { lossId: loss.id })}>
                  {t('withdraw')}
                </Button>
              </li>
            ))}
          </ul>
        ) : null}
      </div>
    </Panel>
  );
}
