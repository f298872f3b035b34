'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { Field } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { PowerField } from '../../../common/PowerField';
import { problemAt, useProblemWords } from '../../../common/words';
import { useEyeWords } from '../../../common/eyeWords';
import { useVisit } from '../../shell/VisitProvider';
import broughtInWords from '@/i18n/messages/en/broughtIn.messages.json';
import { withWords } from '@/i18n/withWords';

/** How it is known that this lens is on the eye. */
const HOWS = ['boxSeen', 'engravingSeen', 'wearerSaid', 'unknown'] as const;

/** A lens the wearer came with: named, its power if anybody knows it, and who says so. */
function BroughtInPanel({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('broughtIn');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { run, problem, clearProblem, busy, record } = useVisit();
  const [eye, setEye] = useState<Eye>('right');
  const [description, setDescription] = useState('');
  const [power, setPower] = useState('');
  const [kept, setKept] = useState<string | null>(null);
  const [how, setHow] = useState<(typeof HOWS)[number]>('wearerSaid');
  const [asked, setAsked] = useState(false);
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setAsked(true);
    const done = await run('recordBroughtIn', { eye, description, power: power.trim() === '' ? null : power, how: how === 'unknown' ? null : how }, t('done'));
    if (done?.ok) onClose();
  };
  const close = (): void => {
    clearProblem();
    onClose();
  };
  const nameProblem = problemAt(problem, 'description');
  return (
    <Panel open onClose={close} title={t('title')}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <p>{t('text')}</p>
        <div>
          <Segment label={t('eye')} values={EYES} value={eye} word={(e) => eyeWords.name(e)} onChoose={setEye} />
        </div>
        <Field
          label={t('name')}
          value={description}
          onValue={setDescription}
          problem={nameProblem ? words(nameProblem.code, nameProblem.data) : null}
          autoFocus
        />
        <div>
          <div className="field-label">{t('power')}</div>
          <PowerField
            id="brought-power"
            label={t('power')}
            eye="left"
            value={power}
            onValue={setPower}
            problem={problemAt(problem, 'power')}
            kept={kept}
            onKeep={setKept}
            notation={record.session.settings.notation}
            asked={asked}
          />
        </div>
        <div>
          <Segment label={t('how')} values={HOWS} value={how} word={(h) => t(`hows.${h}`)} onChoose={setHow} />
        </div>
        <p className="note">{t('note')}</p>
        <FormEnd cancel={t('cancel')} act={t('do')} busy={busy} onCancel={close} />
      </form>
    </Panel>
  );
}

export const BroughtIn = withWords({ broughtIn: broughtInWords }, BroughtInPanel);
