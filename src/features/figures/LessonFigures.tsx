'use client';
import dynamic from 'next/dynamic';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import lessonFiguresWords from '@/i18n/messages/en/lessonFigures.messages.json';
import { withWords } from '@/i18n/withWords';
import type { LessonFiguresPage } from '@/services/figures/queries';
import { AppPage } from '../common/AppPage';
import { Row, share, Table } from './Table';

// Drawn by a library that no other part of the page needs.
const MissChart = dynamic(() => import('./MissChart').then((m) => m.MissChart), { ssr: false });

type Data = Omit<LessonFiguresPage, 'session'>;

/** What the practice's lessons say: how long they take, why attempts fail, which techniques work. */
function LessonFiguresBody({ data }: { readonly data: Data }) {
  const t = useTranslations('lessonFigures');
  const { minutes, misses, techniques } = data;
  const bars = [...new Set(misses.map((m) => m.miss))].map((miss) => {
    const of = (move: 'on' | 'off'): number => misses.find((m) => m.miss === miss && m.move === move)?.count ?? 0;
    return { name: t(`miss.${miss}`), on: of('on'), off: of('off') };
  });
  return (
    <AppPage place="orders" title={t('title')}>
      <section className="px-6 py-3 max-w-[900px]">
        <Link className="btn btn-plain" href="/figures" prefetch={false}>
          {t('allFigures')}
        </Link>
        <Table
          title={t('minutes')}
          line={t('minutesLine')}
          none={t('none')}
          heads={[t('signOffs'), t('firstDay'), t('quarter'), t('half'), t('threeQuarters')]}
        >
          {minutes.lessons === 0
            ? []
            : [
                <Row
                  key="all"
                  cells={[
                    minutes.lessons,
                    share(minutes.firstDay, minutes.lessons),
                    ...[minutes.quarter, minutes.half, minutes.threeQuarters].map((m) => (m === null ? '–' : t('min', { minutes: m }))),
                  ]}
                />,
              ]}
        </Table>
        {bars.length > 0 ? <MissChart bars={bars} label={t('chart')} on={t('on')} off={t('off')} /> : null}
        <Table title={t('misses')} line={t('missesLine')} none={t('none')} heads={[t('why'), t('on'), t('off')]}>
          {bars.map((bar) => (
            <Row key={bar.name} cells={[bar.name, bar.on, bar.off]} />
          ))}
        </Table>
        <Table title={t('techniques')} line={t('techniquesLine')} none={t('none')} heads={[t('technique'), t('attempts'), t('worked')]}>
          {techniques.map((row) => (
            <Row key={row.technique} cells={[t(`techniqueName.${row.technique}`), row.attempts, `${row.worked} (${share(row.worked, row.attempts)})`]} />
          ))}
        </Table>
      </section>
    </AppPage>
  );
}

export const LessonFigures = withWords({ lessonFigures: lessonFiguresWords }, LessonFiguresBody);
