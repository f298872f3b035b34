'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { useWordsOf } from '@/i18n/wordsOf';
import { endingsOf, findingChain, may, sign } from '@/core';
import { formatTime, formatWeekday } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { StateMark } from '@/ui/marks';
import { Correctable } from '../../shell/Correct';
import { useEvidenceWords, useFindingWords } from '../../shell/evidenceWords';
import { ReasonPanel } from '../../shell/ReasonPanel';
import { useVisit } from '../../shell/VisitProvider';
import { openStops } from './model';

const ORDER = ['lensOff', 'phoned', 'printed', 'leftWithLetter', 'calledNextDay'] as const;
const A_DAY_MS = 86_400_000;

/** The margin while an absolute stop stands: what it is, what to do in which order, and no way past it. */
export function AbsoluteStop() {
  const t = useTranslations('eyeHealth');
  const stops = useWordsOf('stops.r');
  const names = useWordsOf('ruleNames');
  const evidence = useEvidenceWords();
  const { record, run, busy } = useVisit();
  const { practice, settings } = record.session;
  const [stop] = openStops(record);
  if (!stop) return null;
  const referral = record.health.referrals.find((r) => openStops(record).some((s) => s.id === r.stopId)) ?? null;
  const held = record.orders.filter((o) => o.events.at(-1)?.state === 'placed' || o.events.at(-1)?.state === 'sendFailed').length;
  const to = (referral?.addressedTo ?? settings.referralTo) || t('nearest');
  const telephone = referral?.telephone ?? (settings.referralTelephone || (practice.emergencyTelephone ?? ''));
  const tomorrow = formatWeekday(new Date(Date.parse(record.session.now) + A_DAY_MS).toISOString(), practice.timeZone);
  return (
    <div className="absolute-stop" data-testid="absolute-stop">
      <div className="flex gap-4 items-center text-stop">
        <StateMark state="stop" size={48} />
        <h2 className="power whitespace-normal">
          {t('noLens')} {t('referToday')}
        </h2>
      </div>
      <p className="mt-3">
        <strong>
          {openStops(record)
            .map((s) => names(s.rule))
            .join(', ')}
        </strong>
      </p>
      <p className="mt-3">{t('nobodyPasses')}</p>
      <h3 className="mt-4">{t('inOrder')}</h3>
      <ol className="steps-list">
        {ORDER.map((step, i) => {
          const done = referral?.steps.find((s) => s.step === step);
          return (
            <li key={step} className="stop-step" data-testid={`step-${step}`}>
              <span className="note w-4">{i + 1}</span>
              <div className="flex-1">
                {done ? <StateMark state="ok" /> : null} {t(`step.${step}`, { to, telephone, day: tomorrow })}
                {done ? <div className="note">{t('stepBy', { name: done.by, time: formatTime(done.at, practice.timeZone) })}</div> : null}
              </div>
              {referral && !done ? (
                <Button look="quiet" disabled={busy} onClick={() => void run('recordReferralStep', { referralId: referral.id, step })}>
                  {t('stepDone')}
                </Button>
              ) : null}
            </li>
          );
        })}
      </ol>
      {referral ? (
        <p className="mt-3">
          <Link className="btn btn-plain" href={`/visits/${record.visit.id}/print/referral`} prefetch={false}>
            {t('printReferral')}
          </Link>
        </p>
      ) : null}
      {held > 0 ? <p className="mt-4 label">{t('heldOrders', { count: held })}</p> : null}
      <h3 className="mt-4">{t('rests')}</h3>
      {openStops(record).map((s) => (
        <div key={s.id} className="mt-2">
          <strong>{names(s.rule)}</strong> {stops(`${s.rule}.why`)}
          <p className="note">{s.evidence.map(evidence).join(' · ')}</p>
          <p className="note">{t('openedBy', { time: formatTime(s.openedAt, practice.timeZone), name: s.openedByName })}</p>
          <EndStop stop={s} />
        </div>
      ))}
      <Corrections />
    </div>
  );
}

/** The findings the stops rest on, each with the way to correct it: a wrong eye or grade. */
function Corrections() {
  const signs = useWordsOf('signs');
  const finding = useFindingWords();
  const { record } = useVisit();
  const all = openStops(record).flatMap((s) => s.evidence);
  const rests = all.filter((e, i) => all.findIndex((o) => o.key === e.key && o.eye === e.eye) === i);
  return (
    <ul className="mt-4">
      {rests.map((e) => {
        const chain = e.eye ? findingChain(record.health.findings, record.visit.id, e.eye, e.key) : null;
        if (!chain) return null;
        const s = sign(e.key);
        return (
          <li key={`${e.key}-${e.eye ?? ''}`} className="flex flex-wrap gap-2 items-baseline" data-testid={`rests-${e.key}-${e.eye ?? ''}`}>
            <span>
              {chain.current.eye === 'right' ? 'R' : 'L'} {signs(e.key)} {finding(e.key, chain.current.numberValue ?? chain.current.wordValue ?? undefined)}
            </span>
            <Correctable
              kind="finding"
              chain={chain}
              show={(row) => finding(row.sign, row.numberValue ?? row.wordValue ?? undefined)}
              options={s?.kind === 'word' ? s.options.map((value) => ({ value, word: signs(`words.${value}`) })) : []}
              textOf={(row) => String(row.numberValue ?? row.wordValue ?? '')}
            />
          </li>
        );
      })}
    </ul>
  );
}

/** Every way this stop may end today, each with its own sentence: the server still asks for the grades that each needs. */
function EndStop({ stop }: { readonly stop: ReturnType<typeof openStops>[number] }) {
  const t = useTranslations('eyeHealth.end');
  const { record, run } = useVisit();
  if (!may(record.session.viewer.roles, 'sign') || record.visit.closedAt !== null) return null;
  return (
    <div className="flex flex-wrap gap-2">
      {endingsOf({ ...stop, thisVisit: stop.visitId === record.visit.id }).map((how) => (
        <ReasonPanel
          key={how}
          open={t(how)}
          title={t('title')}
          text={t(`${how}Text`)}
          doWords={t('do')}
          onReason={async (reason) => (await run('endStop', { stopId: stop.id, how, reason }, t('done')))?.ok === true}
        />
      ))}
    </div>
  );
}
