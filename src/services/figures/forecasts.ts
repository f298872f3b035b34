import 'server-only';
import { demandOf, forecastFigures, scoreOf, type ForecastFigures, type LensPair } from '../../core';
import type { Tx } from '../../db/client';
import { listForecasts, type PairRow } from '../../db/forecasts';

const pairOf = (row: PairRow): LensPair => ({
  right: { sphere: row.rightSphereD, add: row.rightAdd, toric: row.rightCylinderD !== 0 },
  left: { sphere: row.leftSphereD, add: row.leftAdd, toric: row.leftCylinderD !== 0 },
});

/** How well the practice's forecasts of a single change did, since a moment. */
export async function forecastsOf(tx: Tx, practiceId: string, since: string): Promise<ForecastFigures> {
  const rows = await listForecasts(tx, practiceId, since);
  return forecastFigures(
    rows.flatMap((row) =>
      scoreOf(
        row,
        pairOf(row.before),
        pairOf(row.after),
        row.read.map(({ distanceCm, acuity, satisfaction }) => ({ vergence: demandOf(distanceCm), acuity, satisfaction })),
      ),
    ),
  );
}
