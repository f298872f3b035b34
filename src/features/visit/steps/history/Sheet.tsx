'use client';
import { useTranslations } from 'use-intl';
import type { QuestionId } from '@/core';
import { formatDay } from '@/i18n/format';
import { StateMark } from '@/ui/marks';
import { useVisit } from '../../shell/VisitProvider';
import { digitOf, noteKey, originOf, typedOf, WITHDRAW } from './model';
import { QuestionRow } from './QuestionRow';
import type { SheetTyped } from './useSheet';

/** Last visit's answer, the question, today's answer. */
export function Sheet({ typing }: { readonly typing: SheetTyped }) {
  const t = useTranslations('history');
  const { record, health, problem } = useVisit();
  const { draft, sheet, here, noting, closed, go, choose, enter } = typing;
  const lastHeard = record.health.answers.findLast((a) => a.visitId !== record.visit.id);
  const serverProblem = (id: QuestionId) => (problem?.kind === 'invalid' ? problem.fields.find((f) => f.path[0] === 'answers' && f.path[1] === id) : undefined);
  const answered = sheet.questions.length - sheet.missing.length;
  return (
    <div className="sheet" role="group" aria-label={t('title')} data-answered={answered}>
      <div className="sheet-row sheet-head">
        <div className="sheet-then">
          {lastHeard ? t('lastBy', { day: formatDay(lastHeard.recordedAt.slice(0, 10)), name: lastHeard.recordedByName }) : t('noLast')}
        </div>
        <div className="sheet-question">{t('then')}</div>
        <div className="sheet-now flex gap-5">
          <span className="mr-auto">{t('today')}</span>
          <span className="stated">
            <StateMark state="ok" size={12} /> {t('saidToday')}
          </span>
          <span className="stated">
            <span className="carried-mark" aria-hidden="true" /> {t('carried')}
          </span>
        </div>
      </div>
      {sheet.questions.map((q, i) => (
        <QuestionRow
          key={q.id}
          q={q}
          number={i + 1}
          opensGroup={sheet.questions[i - 1]?.group !== q.group}
          current={q.id === here}
          origin={originOf(q.id, sheet, health.before)}
          now={sheet.now[q.id]}
          before={health.before[q.id]}
          text={draft.body[q.id] ?? (sheet.now[q.id] ? typedOf(q, sheet.now[q.id]?.value ?? '') : '')}
          note={draft.body[noteKey(q.id)] ?? sheet.now[q.id]?.note ?? ''}
          noting={noting && q.id === here}
          problem={sheet.problems.find((p) => p.question === q.id) ?? serverProblem(q.id) ?? null}
          closed={closed}
          onHere={() => go(q.id)}
          onOption={(option) => choose(q, digitOf(q, option))}
          onText={(text) => draft.set(q.id, text)}
          onNote={(text) => draft.set(noteKey(q.id), text)}
          onEnter={enter}
          onWithdraw={() => draft.set(WITHDRAW, 'yes')}
        />
      ))}
    </div>
  );
}
