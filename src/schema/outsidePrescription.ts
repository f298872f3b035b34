import { z } from 'zod';
import { optionalText, uuid } from './fields';

/** A prescription of another system, as its file came: text, whatever is in it. */
export const outsideFileForm = z.object({
  wearerId: uuid,
  fileName: z.string().trim().min(1, 'required').max(200, 'tooLong'),
  text: z.string({ error: 'fileRequired' }).min(1, 'fileRequired').max(200_000, 'filePrescriptionLarge'),
});
/** Kept for a wearer. `despiteReason`: why it is theirs although it names somebody else. */
export const keepOutsideForm = outsideFileForm.extend({ despiteReason: optionalText(300) });
export const exportPrescriptionForm = z.object({ prescriptionId: uuid, format: z.enum(['fhir', 'csv']) });
export const prescriptionForm = z.object({ prescriptionId: uuid });
