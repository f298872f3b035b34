'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { ROTATION_PRIORS, shrunkTurn } from '@/core';
import figuresWords from '@/i18n/messages/en/figures.messages.json';
import { withWords } from '@/i18n/withWords';
import type { FiguresPage } from '@/services/figures/queries';
import { AppPage } from '../common/AppPage';
import { SupplyTabs } from '../common/LazySupplyTabs';
import { useServer } from '../common/ServerProvider';
import { Row, share, Table } from './Table';

type Data = Omit<FiguresPage, 'session'>;
const degrees = (value: number): string => `${value.toFixed(1).replace('-', '−')}°`;

/** What the practice's own work says: suppliers, wearing, remakes, first lenses, rotation. */
function FiguresBody({ data }: { readonly data: Data }) {
  const t = useTranslations('figures');
  const { session } = useServer();
  const { forecasts } = data;
  return (
    <AppPage place="orders" title={t('title')}>
      <section className="px-6 py-3 max-w-[900px]">
        <SupplyTabs here="figures" />
        <Link className="btn btn-plain mt-3" href="/figures/lessons" prefetch={false}>
          {t('lessons')}
        </Link>
        <Table title={t('punctuality')} line={t('punctualityLine')} none={t('none')} heads={[t('supplier'), t('orders'), t('inTime'), t('median')]}>
          {data.punctuality.map((row) => (
            <Row
              key={row.supplier ?? ''}
              cells={[row.supplier ?? t('noSupplier'), row.orders, share(row.inTime, row.orders), t('days', { days: row.medianDays })]}
            />
          ))}
        </Table>
        <Table title={t('stretching')} line={t('stretchingLine')} none={t('none')} heads={[t('modality'), t('eyes'), t('slow'), t('fast'), t('middle')]}>
          {data.stretching.map((row) => (
            <Row
              key={row.modality}
              cells={[t(`kind.${row.modality}`), row.eyes, share(row.slow, row.eyes), share(row.fast, row.eyes), t('times', { times: row.middle.toFixed(2) })]}
            />
          ))}
        </Table>
        <Table title={t('remakes')} line={t('remakesLine')} none={t('none')} heads={[t('signed'), t('remade'), t('claimed')]}>
          {data.remakes.signed > 0 || data.remakes.claimed > 0
            ? [
                <Row
                  key="all"
                  cells={[data.remakes.signed, `${data.remakes.remade} (${share(data.remakes.remade, data.remakes.signed)})`, data.remakes.claimed]}
                />,
              ]
            : []}
        </Table>
        <Table title={t('firstLens')} line={t('firstLensLine')} none={t('none')} heads={[t('family'), t('eyes'), t('same'), t('sameFamily')]}>
          {data.firstLens.map((row) => (
            <Row key={row.code} cells={[row.name, row.eyes, share(row.same, row.eyes), share(row.family, row.eyes)]} />
          ))}
        </Table>
        <Table
          title={t('forecasts')}
          line={t('forecastsLine')}
          none={t('none')}
          heads={[t('tasks'), t('withinLine'), t('tooHopeful'), t('satisfactionWithin')]}
        >
          {forecasts.tasks > 0
            ? [
                <Row
                  key="all"
                  cells={[
                    forecasts.tasks,
                    share(forecasts.withinLine, forecasts.read),
                    forecasts.tooHopefulLines === null ? '–' : t('lines', { lines: forecasts.tooHopefulLines.toFixed(1).replace('-', '−') }),
                    share(forecasts.satisfactionWithin, forecasts.tasks),
                  ]}
                />,
              ]
            : []}
        </Table>
        <Table
          title={t('turns')}
          line={t(session.settings.ownTurns ? 'turnsLine' : 'turnsOff')}
          none={t('none')}
          heads={[t('family'), t('eyes'), t('own'), t('assumed'), t('taken')]}
        >
          {data.turns.map((row) => {
            const named = row.rotationMean !== null && row.rotationSd !== null ? { mean: row.rotationMean, sd: row.rotationSd } : null;
            const assumed = named ?? (row.stabilisation ? ROTATION_PRIORS[row.stabilisation] : null);
            const taken = assumed && (session.settings.ownTurns ? shrunkTurn(row, assumed) : assumed);
            const words = (of: { readonly mean: number; readonly sd: number } | null): string => (of ? `${degrees(of.mean)} ± ${degrees(of.sd)}` : '–');
            return <Row key={row.code} cells={[row.name, row.eyes, words(row), words(assumed), words(taken)]} />;
          })}
        </Table>
      </section>
    </AppPage>
  );
}

export const Figures = withWords({ figures: figuresWords }, FiguresBody);
