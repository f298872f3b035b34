import 'server-only';
import { whoseFile } from '../../core';
import { insertOutsidePrescription } from '../../db/outsidePrescription';
import { findWearer } from '../../db/wearer';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import { keepOutsideForm } from '../../schema/outsidePrescription';
import { defineCommand } from '../define';
import { readFile } from './read';

/** A prescription of another system is kept as it was understood: read once more here, so that what was shown is what is kept. */
export const keepOutsidePrescription = defineCommand({
  name: 'keepOutsidePrescription',
  right: 'clinicalWrite',
  input: keepOutsideForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller, now, newId }, form): Promise<Result<{ readonly outsideId: string }>> => {
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
    return ok({ outsideId: id });
  },
});
