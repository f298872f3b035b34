import 'server-only';
import { prescriptionCopy, whoseFile, type ExchangedLens, type ExchangedPrescription, type Eye, type PersonDoubt, type PrescriptionCopy } from '../../core';
import { listOutsidePrescriptions, type OutsidePrescription } from '../../db/outsidePrescription';
import { findPrescription } from '../../db/prescription';
import { findWearer } from '../../db/wearer';
import { writeBundle } from '../../formats/fhir/write';
import { writePrescriptions } from '../../formats/prescriptionCsv';
import { must } from '../../lib/assert';
import { notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import { exportPrescriptionForm, outsideFileForm, prescriptionForm } from '../../schema/outsidePrescription';
import { wearerForm as oneWearer } from '../../schema/wearer';
import { defineQuery, type Context } from '../define';
import { namedLenses } from '../visit/lenses';
import { readFile, type FileRead } from './read';

/** What a file says, before anything is kept: what was understood, what was left aside, and whether it is this wearer's. */
export const readPrescriptionFile = defineQuery({
  name: 'readPrescriptionFile',
  right: 'clinicalRead',
  input: outsideFileForm,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller }, form): Promise<Result<FileRead & { readonly doubts: readonly PersonDoubt[] }>> => {
    const wearer = await findWearer(tx, caller.practiceId, form.wearerId);
    if (!wearer) return notFound('wearer');
    const read = readFile(form.text);
    return read.ok ? ok({ ...read.value, doubts: whoseFile(read.value.document.person, wearer) }) : read;
  },
});

/** Files read for a wearer, as far as they are shown. */
const MOST = 10;
export const readOutsidePrescriptions = defineQuery({
  name: 'readOutsidePrescriptions',
  right: 'clinicalRead',
  input: oneWearer,
  about: (form) => ({ subjectKind: 'wearer', subjectId: form.wearerId }),
  run: async ({ tx, caller }, form): Promise<Result<{ readonly files: readonly OutsidePrescription[] }>> => {
    if (!(await findWearer(tx, caller.practiceId, form.wearerId))) return notFound('wearer');
    return ok({ files: await listOutsidePrescriptions(tx, caller.practiceId, form.wearerId, MOST) });
  },
});

/** A signed prescription as it leaves: null where an eye's lens is left to a laboratory, which no other system can fill. */
async function exchanged(context: Context, prescriptionId: string) {
  const { tx, caller } = context;
  const signed = await findPrescription(tx, caller.practiceId, prescriptionId);
  if (!signed) return null;
  const { lenses } = await namedLenses(
    context,
    signed.eyes.flatMap((e) => e.lensId ?? []),
  );
  const lensOf = (eye: Eye): ExchangedLens | null => {
    const row = signed.eyes.find((e) => e.eye === eye);
    const lens = row?.lensId ? lenses[row.lensId] : undefined;
    if (!row || !lens) return null;
    return {
      power: { sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg },
      add: lens.addBand,
      addD: null,
      brand: `${lens.maker} ${lens.familyName}`,
      baseCurveMm: row.baseCurveOrderedMm,
      diameterMm: lens.diameterMm,
      modality: lens.modality,
    };
  };
  const eyes = { right: lensOf('right'), left: lensOf('left') };
  const { number, purpose, issuedOn, issuedAt, expiresOn } = signed;
  const prescription: ExchangedPrescription = { kind: 'contact', number: String(number), purpose, writtenOn: issuedOn, createdAt: issuedAt, expiresOn, eyes };
  return { signed, prescription };
}

/** What a wearer's copy of a signed prescription says, as data: whoever writes it brings the words. */
export interface CopyPaper {
  readonly wearer: { readonly name: string; readonly birthDate: string; readonly recordNumber: number; readonly language: string };
  readonly visitId: string;
  readonly copy: PrescriptionCopy;
  readonly practice: {
    readonly name: string;
    readonly address: string;
    readonly telephone: string;
    readonly emergencyTelephone: string;
    readonly timeZone: string;
  };
  readonly writtenAt: string;
  readonly writtenBy: string;
}

/** A wearer's copy of a prescription; without an emergency number nothing leaves. */
export const readPrescriptionCopy = defineQuery({
  name: 'readPrescriptionCopy',
  right: 'clinicalRead',
  input: prescriptionForm,
  about: (form) => ({ subjectKind: 'prescription', subjectId: form.prescriptionId }),
  run: async (context, form): Promise<Result<CopyPaper>> => {
    const { tx, caller, practice, now } = context;
    const signed = await findPrescription(tx, caller.practiceId, form.prescriptionId);
    if (!signed) return notFound('prescription');
    const emergencyTelephone = practice.emergencyTelephone?.trim() ?? '';
    if (emergencyTelephone === '') return ruleBroken('noEmergencyNumber');
    const wearer = must(await findWearer(tx, caller.practiceId, signed.wearerId), 'wearer');
    const { lenses } = await namedLenses(
      context,
      signed.eyes.flatMap((e) => e.lensId ?? []),
    );
    const { name, address, telephone, timeZone } = practice;
    return ok({
      wearer: { name: wearer.name, birthDate: wearer.birthDate, recordNumber: wearer.recordNumber, language: wearer.language },
      visitId: signed.visitId,
      copy: prescriptionCopy(signed, lenses),
      practice: { name, address, telephone, emergencyTelephone, timeZone },
      writtenAt: now,
      writtenBy: caller.name,
    });
  },
});

/** A prescription for another system, as a file. */
export const exportPrescription = defineQuery({
  name: 'exportPrescription',
  right: 'clinicalRead',
  input: exportPrescriptionForm,
  about: (form) => ({ subjectKind: 'prescription', subjectId: form.prescriptionId }),
  run: async (context, form): Promise<Result<{ readonly name: string; readonly text: string }>> => {
    const { tx, caller, now } = context;
    const of = await exchanged(context, form.prescriptionId);
    if (!of) return notFound('prescription');
    const { signed, prescription } = of;
    // Half a prescription would be taken for a whole one.
    if (signed.eyes.some(({ eye }) => prescription.eyes[eye] === null)) return ruleBroken('rawNotExchanged');
    const wearer = must(await findWearer(tx, caller.practiceId, signed.wearerId), 'wearer');
    const person = { id: wearer.id, name: wearer.name, birthDate: wearer.birthDate, telephone: wearer.telephone };
    const { name, registerNumber, telephone, address } = signed.prescriber;
    const prescriber = { id: signed.signedBy, name, registerNumber: registerNumber || null, telephone: telephone || null, address: address || null };
    const file = `prescription-${prescription.number}`;
    if (form.format === 'fhir') {
      const bundle = writeBundle({ id: signed.id, person, prescriber, prescription, at: now });
      return ok({ name: `${file}.fhir.json`, text: JSON.stringify(bundle, null, 2) });
    }
    return ok({ name: `${file}.csv`, text: writePrescriptions({ person, prescriber, prescriptions: [prescription] }) });
  },
});
