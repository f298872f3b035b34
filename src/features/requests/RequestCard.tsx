'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { dayIn, instantOf, may, REQUEST_ANSWERS, requestStanding, RULE_PROFILES, type RequestAnswer } from '@/core';
import { formatDay, formatMoment, formatTime } from '@/i18n/format';
import type { RequestShown } from '@/services/request/queries';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated, StateMark } from '@/ui/marks';
import { useNow } from '../common/Clock';
import { FindWearer } from '../common/FindWearer';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { WearerLink } from '../common/WearerLink';
import { problemAt, useProblemWords, useRefusalWords } from '../common/words';
import { ComparedTable } from './ComparedTable';

interface CardProps {
  readonly request: RequestShown;
  readonly onDone: () => void;
}

/** One request: its clock, who asks for whom, the lenses beside what is prescribed, and the answer. */
export function RequestCard({ request, onDone }: CardProps) {
  const t = useTranslations('requests');
  const { session } = useServer();
  const zone = session.practice.timeZone;
  const { compared } = request;
  return (
    <article className="border-t border-rule py-4 flex gap-6 flex-wrap items-start" data-testid="request">
      <Deadline request={request} />
      <div className="flex-1 min-w-[420px] flex flex-col gap-2">
        <p>
          <span className="value">{request.sellerName}</span> {t('asksFor', { name: request.wearerName })}
        </p>
        <p className="label">
          {[
            request.sellerContact ? t('contact', { contact: request.sellerContact }) : '',
            t('received', { time: formatMoment(request.receivedAt, zone) }),
            t('by', { arrived: request.arrived, name: request.recordedByName ?? '' }),
          ]
            .filter(Boolean)
            .join(' · ')}
        </p>
        {compared.missing.length > 0 ? (
          <Stated state="watch">{t('missing', { what: compared.missing.map((gap) => t(`gap.${gap}`)).join(', ') })}</Stated>
        ) : null}
        <Whose request={request} onDone={onDone} />
        <ComparedTable request={request} />
        <Answer request={request} onDone={onDone} />
      </div>
    </article>
  );
}

/** The earliest deadline that a seller could count, large; over it, what silence has become. */
function Deadline({ request }: { readonly request: RequestShown }) {
  const t = useTranslations('requests');
  const { session } = useServer();
  const now = useNow(30_000);
  const zone = session.practice.timeZone;
  const standing = requestStanding(request, instantOf(now));
  const { earliestAt, usualAt } = request;
  const minutes = standing.kind === 'answered' ? 0 : standing.minutes;
  const words = Number.isFinite(minutes) ? t('in', { hours: Math.floor(minutes / 60), minutes: minutes % 60 }) : '';
  if (standing.kind === 'answered') return <div className="w-[190px]" />;
  return (
    <div className="w-[190px]" data-testid="deadline">
      <div className="label">{t('until')}</div>
      <div className={`power-read ${standing.kind === 'waits' ? '' : 'text-stop'}`}>{earliestAt === null ? t('noDeadline') : formatTime(earliestAt, zone)}</div>
      {earliestAt === null ? null : <div className="value">{formatDay(dayIn(earliestAt, zone))}</div>}
      {standing.kind === 'lost' ? (
        <>
          <Stated state="stop">{t('lost', { time: words })}</Stated>
          {RULE_PROFILES[request.profile].silence === 'verified' ? <p className="note">{t('lostUs')}</p> : null}
        </>
      ) : (
        <span className={standing.kind === 'soon' ? 'stated stated-stop' : 'value'}>
          {standing.kind === 'soon' ? <StateMark state="stop" size={13} /> : null} {words}
        </span>
      )}
      {usualAt !== null && usualAt !== earliestAt ? <p className="note">{t('usual', { time: formatMoment(usualAt, zone) })}</p> : null}
    </div>
  );
}

/** Whose request it is: found by whoever reads it. */
function Whose({ request, onDone }: CardProps) {
  const t = useTranslations('requests');
  const refusal = useRefusalWords();
  const { send, problem, busy } = useSending<'matchRequest'>(onDone);
  const [finding, setFinding] = useState(false);
  if (request.wearerId !== null && request.knownAs !== null && !finding)
    return (
      <p className="flex gap-3 items-baseline flex-wrap">
        <span>
          {t('whose')} <WearerLink id={request.wearerId} name={request.knownAs} className="underline" />
        </span>
        {request.answer === null ? (
          <Button look="quiet" onClick={() => setFinding(true)}>
            {t('another')}
          </Button>
        ) : null}
      </p>
    );
  if (request.answer !== null) return null;
  return (
    <div className="max-w-[420px]">
      <p className="value">{t('whose')}</p>
      <FindWearer
        first={request.wearerName}
        onFound={(found) => {
          if (!busy) void send('matchRequest', { requestId: request.id, wearerId: found.id }).then((done) => setFinding(!done));
        }}
      />
      {problem ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}

/** The answer that follows, and the press that gives it; another one says why. */
function Answer({ request, onDone }: CardProps) {
  const t = useTranslations('requests');
  const words = useProblemWords();
  const refusal = useRefusalWords();
  const { session } = useServer();
  const { send, problem, busy } = useSending<'answerRequest'>(onDone);
  const [reason, setReason] = useState('');
  const [again, setAgain] = useState(false);
  const { compared, answer } = request;
  const number = compared.prescription?.number ?? 0;
  const expires = compared.prescription ? formatDay(compared.prescription.expiresOn) : '';
  const plain = compared.missing.length === 0 && (compared.proposed === 'correct' || compared.proposed === 'expired');
  const mayAll = may(session.viewer.roles, 'sign');
  const give = (given: RequestAnswer) => async (): Promise<void> => {
    if (await send('answerRequest', { requestId: request.id, seen: request.answers, answer: given, reason })) setAgain(false);
  };
  if (answer !== null && !again)
    return (
      <p className="flex gap-3 items-baseline flex-wrap">
        <Stated state={answer === 'correct' ? 'ok' : 'watch'}>
          {t('saidBy', {
            answer: t(`answers.${answer}`),
            name: request.answeredByName ?? '',
            time: formatMoment(request.answeredAt ?? '', session.practice.timeZone),
          })}
        </Stated>
        {request.reason ? <span>{request.reason}</span> : null}
        <Button look="quiet" onClick={() => setAgain(true)}>
          {t('again')}
        </Button>
      </p>
    );
  const fault = problemAt(problem, 'reason') ?? problemAt(problem, 'answer');
  return (
    <div className="flex flex-col gap-2">
      <p>{t(`because.${compared.because}`, { number, expires })}</p>
      <Field
        className="max-w-[520px]"
        label={t('reason')}
        value={reason}
        onValue={setReason}
        hint={t('reasonHint')}
        problem={fault ? words(fault.code, fault.data) : null}
        autoComplete="off"
        maxLength={400}
      />
      <div className="flex gap-3 flex-wrap items-center" role="group" aria-label={t('propose', { answer: t(`answers.${compared.proposed}`) })}>
        {[compared.proposed, ...REQUEST_ANSWERS.filter((given) => given !== compared.proposed)].map((given) => {
          const isProposed = given === compared.proposed;
          // Until it is known whose it is, finding the wearer is the next press, not the answer.
          const isNext = isProposed && request.wearerId !== null;
          return mayAll || (plain && isProposed) ? (
            <Button key={given} look={isNext ? 'act' : 'plain'} disabled={busy} onClick={() => void give(given)()}>
              {isProposed ? t('propose', { answer: t(`answers.${given}`) }) : t(`answers.${given}`)}
            </Button>
          ) : null;
        })}
        {mayAll || plain ? null : <Stated state="watch">{t('prescriberOnly')}</Stated>}
      </div>
      {problem && problem.kind !== 'invalid' ? <ProblemLine>{refusal(problem)}</ProblemLine> : null}
    </div>
  );
}
