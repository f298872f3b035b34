import 'server-only';
import { EYES, whoseFile, type ExchangedDocument, type ExchangedPrescription, type Modality } from '../../core';
import { insertBroughtAlong, type NewBroughtAlong } from '../../db/broughtAlong';
import { insertOutsidePrescription } from '../../db/outsidePrescription';
import { findWearer } from '../../db/wearer';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import { keepOutsideForm } from '../../schema/outsidePrescription';
import { defineCommand, type Context } from '../define';
import { unlistedLens } from '../lensOnEye/unlistedLens';
import { readFile } from './read';

/** Days: how often a lens is replaced where a file does not say; the longest, so that nothing looks used up too early. */
const UNSAID: Modality = 'monthly';

/** What the newest contact lens prescription of a file names is what its wearer probably wears: the weakest evidence there is. */
async function bringAlong(context: Context, wearerId: string, { prescriptions }: ExchangedDocument): Promise<void> {
  const { tx, caller, now, today, newId } = context;
  const asOf = (p: ExchangedPrescription): string => p.writtenOn ?? today;
  const newest = prescriptions
    .filter((p) => p.kind === 'contact')
    .sort((a, b) => asOf(a).localeCompare(asOf(b)))
    .at(-1);
  if (!newest) return;
  const rows: NewBroughtAlong[] = [];
  for (const eye of EYES) {
    const lens = newest.eyes[eye];
    if (!lens) continue;
    const { power, brand, modality, baseCurveMm, diameterMm } = lens;
    const name = brand.trim() === '' ? '?' : brand.trim();
    rows.push({
      id: newId(),
      wearerId,
      eye,
      asOf: asOf(newest),
      lensId: await unlistedLens(context, { name, modality: modality ?? UNSAID, power, baseCurveMm, diameterMm }),
    });
  }
  await insertBroughtAlong(tx, caller.practiceId, rows, now, caller.personId);
}

/** A prescription of another system is kept as it was understood: read once more here, so that what was shown is what is kept. */
export const keepOutsidePrescription = defineCommand({
  name: 'keepOutsidePrescription',
  right: 'clinicalWrite',
  input: keepOutsideForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async (context, form): Promise<Result<{ readonly outsideId: string }>> => {
    const { tx, caller, now, newId } = context;
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!wearer) return notFound('wearer');
    const read = readFile(form.text);
    if (!read.ok) return read;
    const { document, left, format } = read.value;
    const [doubt] = whoseFile(document.person, wearer);
    // Another name, or another birth date, is another person until somebody says why not.
    if (doubt !== undefined && doubt !== 'nobodyNamed' && form.despiteReason === null)
      return invalid('despiteReason', 'fileOfAnother', { name: document.person?.name ?? '' });
    const id = newId();
    await insertOutsidePrescription(tx, {
      id,
      practiceId: caller.practiceId,
      wearerId: wearer.id,
      fileName: form.fileName,
      format,
      document,
      leftAside: left,
      despiteReason: form.despiteReason,
      recordedAt: now,
      recordedBy: caller.personId,
    });
    await bringAlong(context, wearer.id, document);
    return ok({ outsideId: id });
  },
});
