import { z } from 'zod';
import { MOST_WHOLE, optionalText, reason, uuid, version } from './fields';

const recordNumber = z.number({ error: 'recordNumberShape' }).int('recordNumberShape').min(1, 'recordNumberShape').max(MOST_WHOLE, 'recordNumberShape');

/** The two records by their numbers: the one to keep, and the one that becomes part of it. */
export const mergePairForm = z.object({ keep: recordNumber, other: recordNumber });
/** The versions are those of the records as they were shown. `birthDatesReason`: why they are one person whose birth dates differ. */
export const mergeWearersForm = z.object({
  keepId: uuid,
  keepVersion: version,
  otherId: uuid,
  otherVersion: version,
  reason,
  birthDatesReason: optionalText(400).refine((text) => text === null || text.length >= 3, 'reasonRequired'),
});
export const undoMergeForm = z.object({ mergeId: uuid, reason });
