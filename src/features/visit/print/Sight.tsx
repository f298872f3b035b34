'use client';
import { useTranslations } from 'use-intl';
import { formatAcuity, latest, sightOfBoth, type AcuityWay, type Eye, type EyeAcuities } from '@/core';
import { formatDay } from '@/i18n/format';
import { useVisit } from '../shell/VisitProvider';
import { EyesTable, type EyesRow } from './EyesTable';

const READ = ['glasses', 'lens', 'over', 'pinhole'] as const satisfies readonly (keyof EyeAcuities)[];

/** What each eye sees today, with what it saw with glasses before: whoever the wearer is sent to asks for it first. */
export function Sight() {
  const t = useTranslations('print');
  const { record, eye } = useVisit();
  const notation = record.session.settings.acuity;
  const words = (acuity: number | null | undefined): string => (acuity === null || acuity === undefined ? t('sightUnread') : formatAcuity(acuity, notation));
  const before = (e: Eye): string | null => {
    const row = record.earlierRefractions.find((r) => r.eye === e && r.acuityLogMar !== null);
    return row ? t('sightOn', { acuity: words(row.acuityLogMar), day: formatDay(row.observedAt.slice(0, 10)) }) : null;
  };
  const plain = (e: Eye, way: AcuityWay): number | null =>
    latest(record.facts.eyeAcuities, (row) => row.eye === e && row.way === way)?.current.acuityLogMar ?? null;
  const both = sightOfBoth(record.facts.acuitiesBoth, { right: eye('right').onEye?.rootId ?? null, left: eye('left').onEye?.rootId ?? null });
  const earlier = { right: before('right'), left: before('left') };
  const rows: EyesRow[] = READ.flatMap((what) => {
    const of = (e: Eye) => eye(e).acuities[what] ?? (what === 'glasses' || what === 'pinhole' ? plain(e, what) : null);
    return of('right') === null && of('left') === null
      ? []
      : [{ key: what, name: t(`sightRows.${what}`), cells: { right: words(of('right')), left: words(of('left')) } }];
  });
  const unaided = { right: plain('right', 'unaided'), left: plain('left', 'unaided') };
  if (unaided.right !== null || unaided.left !== null)
    rows.unshift({ key: 'unaided', name: t('sightRows.unaided'), cells: { right: words(unaided.right), left: words(unaided.left) } });
  if (both) rows.push({ key: 'both', name: t('sightRows.both'), cells: { both: words(both.current.acuityLogMar) } });
  if (earlier.right !== null || earlier.left !== null)
    rows.push({ key: 'before', name: t('sightRows.before'), cells: { right: earlier.right ?? t('sightUnread'), left: earlier.left ?? t('sightUnread') } });
  return (
    <section data-testid="sight">
      <h2>{t('sight')}</h2>
      {rows.length === 0 ? <p>{t('sightNone')}</p> : <EyesTable title={t('sight')} rows={rows} />}
    </section>
  );
}
