'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { parseRefraction, type Eye } from '@/core';
import powerFieldWords from '@/i18n/messages/en/powerField.messages.json';
import { withWords } from '@/i18n/withWords';
import { Field } from '@/ui/Field';
import { FormEnd } from '@/ui/FormEnd';
import { Panel } from '@/ui/Panel';
import { useEyeWords } from '../../../common/eyeWords';
import { PowerField } from '../../../common/PowerField';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { AskingState } from './useAsking';

/** A lens from somewhere else: its name, and its power if anybody knows it. */
function ElsewherePanel({ asking, eye }: { readonly asking: AskingState; readonly eye: Eye }) {
  const t = useTranslations('wornNow');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { problem, clearProblem, busy, record } = useVisit();
  const [description, setDescription] = useState('');
  const [power, setPower] = useState('');
  const [kept, setKept] = useState<string | null>(null);
  const [asked, setAsked] = useState(false);
  const nameless = description.trim().length < 2;
  const close = (): void => {
    clearProblem();
    asking.open(null);
  };
  const submit = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    setAsked(true);
    // It may have to wait until it is known since when: what is wrong is said before.
    if (nameless || (power.trim() !== '' && !parseRefraction(power).ok)) return;
    const said = { answer: 'boughtElsewhere', description, power: power.trim() === '' ? null : power, modality: 'monthly' } as const;
    if (await asking.send(eye, said)) close();
  };
  const name = problemAt(problem, eye, 'description');
  return (
    <Panel open onClose={close} title={t('elsewhereTitle', { eye: eyeWords.name(eye) })}>
      <form onSubmit={(event) => void submit(event)} className="flex flex-col gap-3">
        <p>{t('elsewhereText')}</p>
        <Field
          label={t('elsewhereName')}
          value={description}
          onValue={setDescription}
          problem={name ? words(name.code, name.data) : asked && nameless ? words('lensNameRequired') : null}
          autoFocus
          autoComplete="off"
        />
        <div>
          <div className="field-label">{t('elsewherePower')}</div>
          <PowerField
            id="elsewhere-power"
            label={t('elsewherePower')}
            eye="left"
            value={power}
            onValue={setPower}
            problem={problemAt(problem, eye, 'power')}
            kept={kept}
            onKeep={setKept}
            notation={record.session.settings.notation}
            asked={asked}
          />
        </div>
        <FormEnd cancel={t('cancel')} act={t('keep')} busy={busy} onCancel={close} />
      </form>
    </Panel>
  );
}

export const Elsewhere = withWords({ powerField: powerFieldWords }, ElsewherePanel);
