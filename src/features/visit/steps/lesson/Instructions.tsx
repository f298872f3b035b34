'use client';
import { useState, type FormEvent } from 'react';
import { useTranslations } from 'use-intl';
import { HELPER_WHY, INSTRUCTIONS, may, type HelperWhy, type Instruction } from '@/core';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { Correctable } from '../../shell/Correct';
import { useVisit } from '../../shell/VisitProvider';

/** What a prescriber says of the lesson: something more to teach, somebody else who may handle the lenses. */
export function Instructions() {
  const t = useTranslations('lesson');
  const { record } = useVisit();
  const said = record.lessonInstructions.filter((c) => c.current !== null);
  const prescriber = may(record.session.viewer.roles, 'sign');
  if (said.length === 0 && !prescriber) return null;
  return (
    <section className="py-3" data-testid="instructions">
      <h2>{t('instructions')}</h2>
      <ul>
        {said.map((chain) => {
          const { current } = chain;
          if (!current) return null;
          const words = t(`instruction.${current.what}`, {
            text: current.text,
            why: current.why ? t(`helperWhy.${current.why}`) : '',
            name: current.recordedByName,
          });
          return (
            <li key={chain.rootId} className="py-1 flex gap-3 items-start">
              <span className="flex-1">{words}</span>
              {current.visitId === record.visit.id ? <Correctable kind="lessonInstruction" chain={chain} show={() => words} /> : null}
            </li>
          );
        })}
      </ul>
      {prescriber && record.visit.closedAt === null ? <Say /> : null}
    </section>
  );
}

function Say() {
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
