'use client';
import { useTranslations } from 'use-intl';
import { AFTERCARE_OUTCOMES, latest, nextAftercareOf, type AftercareOutcome } from '@/core';
import { formatDay } from '@/i18n/format';
import { Button } from '@/ui/Button';
import { Field } from '@/ui/Field';
import { Stated } from '@/ui/marks';
import { Segment } from '@/ui/Segment';
import { problemAt, useProblemWords } from '../../../common/words';
import { BookNext, type BookNextProps } from '../../shell/booking/BookNext';
import { useVisit } from '../../shell/VisitProvider';
import type { AftercarePage } from './useAftercare';

interface Of {
  readonly page: AftercarePage;
}
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
  const end = async (next: Place): Promise<void> => {
    const form = { outcome, note: draft.body.note ?? '', unbookedReason: draft.body.unbooked ?? '', next };
    const done = await run('endAftercare', form, t('ended', { outcome: t(`outcome.${outcome}`) }));
    if (done?.ok) draft.clear();
  };
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
        <Button look="act" className="self-start" disabled={busy} onClick={() => void end(null)}>
          {t('endStop')}
        </Button>
      ) : (
        <NextVisit page={page} outcome={outcome} onEnd={(next) => void end(next)} />
      )}
    </>
  );
}

const kindOf = (complex: boolean) => (complex ? ('longFollowUp' as const) : ('shortFollowUp' as const));
type FollowUp = ReturnType<typeof kindOf>;
type Place = Parameters<BookNextProps<FollowUp>['onEnd']>[0];

function NextVisit({ page, outcome, onEnd }: Of & { readonly outcome: 'keep' | 'change'; readonly onEnd: (next: Place) => void }) {
  const t = useTranslations('aftercare');
  const { draft } = page;
  const next = nextAftercareOf(page.visit, outcome);
  const complex = (['right', 'left'] as const).some((eye) => (page.state.worn[eye]?.lens.geometry ?? 'sphere') !== 'sphere');
  return (
    <div className="flex flex-col gap-2" data-testid="next-visit">
      <p>
        <span className="label">{t('next')}</span> {next ? t('dueLine', { day: formatDay(next.on), due: t(`due.${next.due}`) }) : null}{' '}
        <span className="note">{next ? t('source', { mark: next.source.mark, source: next.source.text }) : null}</span>
      </p>
      <BookNext
        kind={kindOf(complex)}
        from={next?.on ?? null}
        unbooked={draft.body.unbooked ?? ''}
        onUnbooked={(text) => draft.set('unbooked', text)}
        onEnd={onEnd}
        say={{ free: (day, time) => t('endFree', { day, time }), booked: (day) => t('endBooked', { day }), unbooked: t('endUnbooked') }}
      />
    </div>
  );
}
