import 'server-only';
import { dayIn, eyeRunways, type EyeRunway, type IsoDate } from '../../core';
import type { Db } from '../../db/client';
import { lockRunways, staleMarks, storeRunways } from '../../db/eyeRunway';
import { readRunwayFiles } from '../../db/runwayFile';

/** What of a practice a runway is reckoned by. */
export interface RunwayTerms {
  readonly today: IsoDate;
  readonly timeZone: string;
  readonly marginDays: number;
}

/** How far the lenses of some wearers reach, from the facts as they stand. */
export async function reckonRunways(
  sql: Db,
  practiceId: string,
  wearerIds: readonly string[],
  { today, timeZone, marginDays }: RunwayTerms,
): Promise<readonly (EyeRunway & { readonly wearerId: string })[]> {
  const { files, trade } = await readRunwayFiles(sql, practiceId, wearerIds, today);
  return files.flatMap(({ wearerId, file, lastCall }) =>
    eyeRunways({ file, trade, today, marginDays, lastCall: lastCall && { ...lastCall, calledOn: dayIn(lastCall.calledAt, timeZone) } }).map((row) => ({
      ...row,
      wearerId,
    })),
  );
}

/** Reckons the runways of some wearers anew and keeps them, in the transaction of whoever changed what they rest on. */
export async function renewRunways(sql: Db, practiceId: string, wearerIds: readonly string[], terms: RunwayTerms): Promise<void> {
  await lockRunways(sql, practiceId, wearerIds);
  const marks = await staleMarks(sql, practiceId, wearerIds);
  const rows = await reckonRunways(sql, practiceId, wearerIds, terms);
  await storeRunways(sql, practiceId, { wearerIds, rows, marks, today: terms.today });
}
