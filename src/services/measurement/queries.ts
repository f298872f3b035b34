import 'server-only';
import { whoseFile, type MeasuredFile, type PersonDoubt } from '../../core';
import { findVisit } from '../../db/visit';
import { findWearer } from '../../db/wearer';
import { readMeasurementCsv } from '../../formats/measurements/csv';
import { isDicom, readDicom } from '../../formats/measurements/dicom';
import { invalid, notFound, ok, type Result } from '../../lib/outcome';
import { measurementFileForm } from '../../schema/measurement';
import { defineQuery } from '../define';

/** A file of an instrument as it was understood, and how the person it names differs from the wearer. */
export interface MeasurementRead extends MeasuredFile {
  readonly format: 'dicom' | 'csv';
  readonly doubts: readonly PersonDoubt[];
}

/** What a file of an instrument says, before anything is taken from it. A file by what is in it, not by its name. */
export const readMeasurementFile = defineQuery({
  name: 'readMeasurementFile',
  right: 'clinicalRead',
  input: measurementFileForm,
  about: (form) => ({ subjectKind: 'visit', subjectId: form.visitId }),
  run: async ({ tx, caller }, form): Promise<Result<MeasurementRead>> => {
    const visit = await findVisit(tx, caller.practiceId, form.visitId);
    const wearer = visit && (await findWearer(tx, caller.practiceId, visit.wearerId));
    if (!wearer) return notFound('visit');
    const format = isDicom(form.bytes) ? 'dicom' : 'csv';
    const read = format === 'dicom' ? readDicom(form.bytes) : readMeasurementCsv(form.bytes);
    if (!read.ok) return invalid('file', read.error.code, read.error.data);
    return ok({ ...read.value, format, doubts: whoseFile(read.value.person, wearer) });
  },
});
