'use client';
import { useTranslations } from 'use-intl';
import { AFTERCARE_OUTCOMES, latest, nextAftercareOf, USUAL_MINUTES, type AftercareOutcome, type FreeSlot } from '@/core';
import { formatDay, formatTime, formatWeekday } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field, ProblemLine } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { useVisit } from '../../shell/VisitProvider';
import type { AftercarePage } from './useAftercare';
import { useComing } from './useComing';
import { useFreeTimes } from './useFreeTimes';

interface Of {
  readonly page: AftercarePage;
}
/** Free times that are offered. */
const OFFERED = 3;

/** Keep, change or stop, with a sentence where one is due; and the next visit, booked by the same press. */
export function EndAftercare({ page }: Of) {
  const t = useTranslations('aftercare');
  const { record } = useVisit();
  const { draft, closed } = page;
  const ended = latest(record.health.aftercareEnds, (e) => e.visitId === record.visit.id)?.current;
  const outcome = AFTERCARE_OUTCOMES.find((o) => o === draft.body.outcome) ?? null;
  return (
    <section className="px-6 py-3 border-t border-rule flex flex-col gap-2" aria-label={t('end')}>
      <h2>{t('end')}</h2>
      {ended ? (
        <p data-testid="aftercare-ended">
          <Stated state={ended.outcome === 'keep' ? 'ok' : 'watch'}>
            {t('endedLine', { outcome: t(`outcome.${ended.outcome}`), by: ended.recordedByName })}
          </Stated>{' '}
          {ended.note}
        </p>
      ) : null}
      {closed ? null : (
        <>
          <div className="self-start">
            <Segment
              label={t('outcomeLabel')}
              values={AFTERCARE_OUTCOMES}
              value={outcome}
              word={(o) => t(`outcome.${o}`)}
              onChoose={(o) => draft.set('outcome', o)}
            />
          </div>
          {outcome === null ? null : <Ending page={page} outcome={outcome} />}
        </>
      )}
    </section>
  );
}

/** What is still said about an outcome, and the presses that end it. */
function Ending({ page, outcome }: Of & { readonly outcome: AftercareOutcome }) {
  const t = useTranslations('aftercare');
  const words = useProblemWords();
  const { problem, busy, run } = useVisit();
  const { draft, state } = page;
  const fault = problemAt(problem, 'note');
  const noted = outcome !== 'keep' || state.open.length > 0;
  const end = async (next: Parameters<typeof placeOf>[0] | null, kind: ReturnType<typeof kindOf>): Promise<void> => {
    const form = { outcome, note: draft.body.note ?? '', unbookedReason: draft.body.unbooked ?? '', next: next && placeOf(next, kind, zone) };
    const done = await run('endAftercare', form, t('ended', { outcome: t(`outcome.${outcome}`) }));
    if (done?.ok) draft.clear();
  };
  const { record } = useVisit();
  const zone = record.session.practice.timeZone;
  return (
    <>
      {noted ? (
        <Field
          className="max-w-[620px]"
          label={t(outcome === 'keep' ? 'noteOpen' : outcome === 'change' ? 'noteChange' : 'noteStop')}
          value={draft.body.note ?? ''}
          onValue={(text) => draft.set('note', text)}
          problem={fault ? words(fault.code, fault.data) : null}
          autoComplete="off"
          maxLength={400}
        />
      ) : null}
      {outcome === 'stop' ? (
        <Button look="act" className="self-start" disabled={busy} onClick={() => void end(null, 'shortFollowUp')}>
          {t('endStop')}
        </Button>
      ) : (
        <NextVisit page={page} outcome={outcome} onEnd={(next, kind) => void end(next, kind)} />
      )}
    </>
  );
}

const kindOf = (complex: boolean) => (complex ? ('longFollowUp' as const) : ('shortFollowUp' as const));
/** A free time as it is sent to be booked. */
const placeOf = (free: FreeSlot, kind: ReturnType<typeof kindOf>, zone: string) => ({
  kind,
  day: free.day,
  time: formatTime(free.startsAt, zone),
  chairMinutes: USUAL_MINUTES[kind].chair,
  staffMinutes: USUAL_MINUTES[kind].staff,
  roomId: free.roomId,
  staffId: free.staffId,
  despite: '',
});

function NextVisit({
  page,
  outcome,
  onEnd,
}: Of & { readonly outcome: 'keep' | 'change'; readonly onEnd: (next: FreeSlot | null, kind: ReturnType<typeof kindOf>) => void }) {
  const t = useTranslations('aftercare');
  const words = useProblemWords();
  const { record, problem, busy } = useVisit();
  const zone = record.session.practice.timeZone;
  const next = nextAftercareOf(page.visit, outcome);
  const kind = kindOf((['right', 'left'] as const).some((eye) => (page.state.worn[eye]?.lens.geometry ?? 'sphere') !== 'sphere'));
  const free = useFreeTimes(kind, next?.on ?? null, record.wearer.id);
  const coming = useComing(record.wearer.id);
  const { draft } = page;
  const why = problemAt(problem, 'unbookedReason');
  const place = problemAt(problem, 'next', 'time') ?? problemAt(problem, 'time') ?? problemAt(problem, 'roomId') ?? problemAt(problem, 'staffId');
  return (
    <div className="flex flex-col gap-2" data-testid="next-visit">
      <p>
        <span className="label">{t('next')}</span> {next ? t('dueLine', { day: formatDay(next.on), due: t(`due.${next.due}`) }) : null}{' '}
        <span className="note">{next ? t('source', { mark: next.source.mark, source: next.source.text }) : null}</span>
      </p>
      {coming ? (
        <p className="flex gap-3 items-center flex-wrap">
          <span>{t('booked', { day: formatWeekday(coming.startsAt, zone), time: formatTime(coming.startsAt, zone) })}</span>
          <Button look="act" disabled={busy} onClick={() => onEnd(null, kind)}>
            {t('endBooked', { day: formatWeekday(coming.startsAt, zone) })}
          </Button>
        </p>
      ) : null}
      {place ? <ProblemLine>{words(place.code, place.data)}</ProblemLine> : null}
      {free === null ? <p className="note">{t('looking')}</p> : null}
      {free?.length === 0 ? <p>{t('noneFree')}</p> : null}
      <div className="flex gap-3 flex-wrap">
        {(free ?? []).slice(0, OFFERED).map((slot, i) => (
          <Button key={slot.startsAt} look={i === 0 && !coming ? 'act' : 'plain'} disabled={busy} onClick={() => onEnd(slot, kind)}>
            {t('endFree', { day: formatWeekday(slot.startsAt, zone), time: formatTime(slot.startsAt, zone) })}
          </Button>
        ))}
      </div>
      <div className="flex gap-3 items-end flex-wrap">
        <Field
          className="w-[320px]"
          label={t('unbooked')}
          value={draft.body.unbooked ?? ''}
          onValue={(text) => draft.set('unbooked', text)}
          problem={why ? words(why.code, why.data) : null}
          autoComplete="off"
          maxLength={200}
        />
        <Button disabled={busy} onClick={() => onEnd(null, kind)}>
          {t('endUnbooked')}
        </Button>
      </div>
    </div>
  );
}
