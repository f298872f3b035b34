'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import type { DueWearer } from '@/db/eyeRunway';
import { formatDay, formatShortDay } from '@/i18n/format';
import dueWords from '@/i18n/messages/en/due.messages.json';
import eyesWords from '@/i18n/messages/en/eyes.messages.json';
import outboxProblems from '@/i18n/messages/en/outboxProblems.messages.json';
import reorderProblems from '@/i18n/messages/en/reorderProblems.messages.json';
import { withWords } from '@/i18n/withWords';
import { KeyCap, Stated } from '@/ui/marks';
import { AppPage } from '../common/AppPage';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { useProblemWords, useRefusalWords } from '../common/words';
import { monthsOf, placeOf } from './dueAxis';
import { DueRow } from './DueRow';
import { useDue } from './useDue';

export interface DueProps {
  readonly wearers: readonly DueWearer[];
  readonly more: boolean;
  readonly count: number;
  readonly lapsed: boolean;
}

/** Counted no further than this. */
const MANY = 1000;

/** Everybody whose lenses run low, the first due at the top: why, what is proposed, and one key that does it. */
function DuePage({ wearers, more, count, lapsed }: DueProps) {
  const t = useTranslations('due');
  const refusal = useRefusalWords();
  const words = useProblemWords();
  const { session } = useServer();
  const page = useDue(wearers);
  const last = wearers.at(-1);
  return (
    <AppPage
      place="orders"
      title={t('title')}
      bar={
        <div className="frame-bar-keys">
          <span>
            <KeyCap>{'↑'}</KeyCap> <KeyCap>{'↓'}</KeyCap> {t('keys.move')}
          </span>
          <span>
            <KeyCap>{'⏎'}</KeyCap> {t('keys.accept')}
          </span>
          <span>
            <KeyCap>{'M'}</KeyCap> {t('keys.message')}
          </span>
          <span>
            <KeyCap>{'W'}</KeyCap> {t('keys.write')}
          </span>
        </div>
      }
    >
      <section className="px-6 py-3">
        <SupplyTabs here="due" />
        <div className="flex flex-wrap items-baseline gap-x-4 py-2">
          <p className="grow basis-[420px]">{t(lapsed ? 'lapsedLine' : 'line', { count, many: count >= MANY ? 'yes' : 'no' })}</p>
          <Link className="btn btn-quiet" href={lapsed ? '/reorders' : '/reorders?lapsed'} prefetch={false}>
            {t(lapsed ? 'toDue' : 'toLapsed')}
          </Link>
        </div>
        {page.problem ? (
          <p role="alert" className="pb-2">
            <Stated state="stop">
              {page.problem.kind === 'invalid' ? words(page.problem.fields[0]?.code ?? '', page.problem.fields[0]?.data) : refusal(page.problem)}
            </Stated>
          </p>
        ) : null}
        {wearers.length === 0 ? (
          <p className="py-4">{t(lapsed ? 'lapsedNone' : 'none')}</p>
        ) : (
          <table className="ledger w-full" data-testid="due">
            <thead>
              <tr>
                <th scope="col">{t('whose')}</th>
                <th scope="col">
                  <div className="due-scale" aria-hidden="true">
                    {monthsOf(session.today).map((month) => (
                      <span key={month} style={{ left: `${placeOf(month, session.today)}%` }}>
                        {formatDay(month).split(' ')[1]}
                      </span>
                    ))}
                    <b style={{ left: `${placeOf(session.today, session.today)}%` }}>{formatShortDay(session.today)}</b>
                  </div>
                </th>
                <th scope="col">{t('what')}</th>
                <th scope="col" />
              </tr>
            </thead>
            <tbody>
              {page.lines.map((line, i) => (
                <DueRow
                  key={line.of.wearerId}
                  line={line}
                  chosen={i === page.at}
                  onChoose={() => page.choose(i)}
                  onAccept={() => page.accept(line)}
                  onMessage={() => page.end(line, 'message')}
                  onNoLonger={lapsed ? () => page.end(line, 'noLonger') : null}
                />
              ))}
            </tbody>
          </table>
        )}
        {more && last ? (
          <Link className="btn mt-3" href={`/reorders?${lapsed ? 'lapsed&' : ''}day=${last.dueOn}&after=${last.wearerId}`} prefetch={false}>
            {t('more')}
          </Link>
        ) : null}
      </section>
    </AppPage>
  );
}

export const Due = withWords({ due: dueWords, eyes: eyesWords, problems: { ...reorderProblems, ...outboxProblems } }, DuePage);
