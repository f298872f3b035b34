'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, type Eye, type HandOverFact } from '@/core';
import { formatDay } from '@/i18n/format';
import { Field } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import { wornBefore } from './wornBefore';
import wornInWords from '@/i18n/messages/en/wornIn.messages.json';
import { withWords } from '@/i18n/withWords';

const HOWS = ['wearerSaid', 'boxSeen'] as const;
const NONE = 'none';

/** The lens that was handed over is on the eye again: the very lens, its lot and its history, for how long and who says so. */
function WornInPanel({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('wornIn');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { run, problem, clearProblem, busy, record } = useVisit();
  const given: Readonly<Record<Eye, readonly HandOverFact[]>> = { right: wornBefore(record, 'right'), left: wornBefore(record, 'left') };
  const [chosen, setChosen] = useState<Readonly<Record<Eye, string>>>({ right: given.right[0]?.rootId ?? NONE, left: given.left[0]?.rootId ?? NONE });
  const [hours, setHours] = useState('');
  const [how, setHow] = useState<(typeof HOWS)[number]>('wearerSaid');
  const idOf = (eye: Eye): string | null => (chosen[eye] === NONE ? null : chosen[eye]);
  const describe = (lensId: string): string => {
    const lens = record.lenses[lensId];
    return lens ? `${lens.familyName} ${formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg })}` : '';
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const hoursWorn = hours.trim() === '' ? Number.NaN : Number(hours.replace(',', '.'));
    const done = await run('recordWorn', { right: idOf('right'), left: idOf('left'), hoursWorn, how }, t('done'));
    if (done?.ok) onClose();
  };
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const hoursProblem = problemAt(problem, 'hoursWorn');
  const eyeProblem = problemAt(problem, 'right') ?? problemAt(problem, 'left');
  return (
    <Panel open onClose={close} title={t('title')}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <p>{t('text')}</p>
        {EYES.filter((eye) => given[eye].length > 0).map((eye) => (
          <label key={eye}>
            <span className="field-label">{eyeWords.name(eye)}</span>
            <select className="choice w-full" value={chosen[eye]} onChange={(event) => setChosen((now) => ({ ...now, [eye]: event.target.value }))}>
              {given[eye].map((h) => (
                <option key={h.rootId} value={h.rootId}>
                  {t('lens', { lens: describe(h.lensId), lot: h.lot, day: formatDay(h.handedOn) })}
                </option>
              ))}
              <option value={NONE}>{t('none')}</option>
            </select>
          </label>
        ))}
        {eyeProblem ? <p className="text-stop">{words(eyeProblem.code, eyeProblem.data)}</p> : null}
        <Field
          label={t('hours')}
          value={hours}
          onValue={setHours}
          inputMode="decimal"
          problem={hoursProblem ? words(hoursProblem.code, hoursProblem.data) : null}
          autoFocus
        />
        <div>
          <div className="field-label">{t('how')}</div>
          <Segment label={t('how')} values={HOWS} value={how} word={(h) => t(`hows.${h}`)} onChoose={setHow} />
        </div>
        <FormEnd cancel={t('cancel')} act={t('do')} busy={busy} onCancel={close} />
      </form>
    </Panel>
  );
}

export const WornIn = withWords({ wornIn: wornInWords }, WornInPanel);
