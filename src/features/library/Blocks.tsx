'use client';
import { useTranslations } from 'use-intl';
import { formatPower, rangeCount, rangeValue, type LensBlock, type StepRange, nameOfAdd } from '@/core';

const last = (range: StepRange): number => rangeValue(range, rangeCount(range) - 1);

/** The blocks of one version, as the catalogue names them. */
export function Blocks({ blocks }: { readonly blocks: readonly LensBlock[] }) {
  const t = useTranslations('library');
  const ofFamily = useTranslations('family');
  const span = (range: StepRange, show: (value: number) => string): string =>
    range.from === last(range) ? show(range.from) : t('span', { from: show(range.from), to: show(last(range)), step: show(range.step).replace('+', '') });
  return (
    <table className="ledger" data-testid="blocks">
      <thead>
        <tr>
          <th scope="col">{t('blockSpheres')}</th>
          <th scope="col">{t('columns.cylinders')}</th>
          <th scope="col">{t('blockAxes')}</th>
          <th scope="col">{t('columns.adds')}</th>
          <th scope="col">{t('columns.curves')}</th>
        </tr>
      </thead>
      <tbody>
        {blocks.map((b, i) => {
          const turned = b.cylinders.some((c) => c !== 0);
          return (
            <tr key={i}>
              <td>{span(b.spheres, formatPower)}</td>
              <td>{turned ? b.cylinders.map((c) => formatPower(c)).join(', ') : t('noneMade')}</td>
              <td>{turned ? span(b.axes, String) : ''}</td>
              <td>{b.adds.flatMap((a) => (a === null ? [] : [nameOfAdd(a, (band) => ofFamily(`add.${band}`))])).join(', ') || t('noneMade')}</td>
              <td>{b.curves.map((c) => `${c.baseCurve.toFixed(1)} / ${c.diameter.toFixed(1)}`).join(', ')}</td>
            </tr>
          );
        })}
      </tbody>
    </table>
  );
}
