'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { HELPER_WHY, INSTRUCTIONS, type HelperWhy, type Instruction } from '@/core';
import lessonProblems from '@/i18n/messages/en/lessonProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';

/** What a prescriber adds to the lesson, or who else may handle the lenses. */
function SayInstructionPart() {
  const t = useTranslations('lesson');
  const words = useProblemWords();
  const { run, busy, problem } = useVisit();
  const [what, setWhat] = useState<Instruction>('addition');
  const [text, setText] = useState('');
  const [why, setWhy] = useState<HelperWhy | null>(null);
  const wrong = problemAt(problem, 'text');
  const whyWrong = problemAt(problem, 'why');
  const say = async (event: FormEvent): Promise<void> => {
    event.preventDefault();
    const done = await run('instructLesson', { what, text, why: what === 'helper' ? why : null }, t('instructionKept'));
    if (done?.ok) setText('');
  };
  return (
    <details className="mt-1">
      <summary>{t('instructionAdd')}</summary>
      <form onSubmit={(event) => void say(event)} className="flex flex-col gap-2 py-2">
        <Segment label={t('instructions')} values={INSTRUCTIONS} value={what} word={(one) => t(`instructionWhat.${one}`)} onChoose={setWhat} />
        <Field
          label={t(`instructionText.${what}`)}
          value={text}
          onValue={setText}
          problem={wrong ? words(wrong.code, wrong.data) : null}
          maxLength={160}
          autoComplete="off"
        />
        {what === 'helper' ? (
          <Segment label={t('helperWhyLabel')} kind="wrapping" values={HELPER_WHY} value={why} word={(one) => t(`helperWhy.${one}`)} onChoose={setWhy} />
        ) : null}
        {whyWrong ? <ProblemLine>{words(whyWrong.code, whyWrong.data)}</ProblemLine> : null}
        <Button type="submit" disabled={busy}>
          {t('instructionKeep')}
        </Button>
      </form>
    </details>
  );
}

export const SayInstruction = withWords({ problems: lessonProblems }, SayInstructionPart);
