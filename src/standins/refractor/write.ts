import { createHash } from 'node:crypto';
import dcmjs, { type Natural } from 'dcmjs';
import type { Eye, Keratometry, MeasuredHow, Refraction } from '../../core';

/** What the instrument measured, and of whom. */
export interface Measured {
  readonly how: MeasuredHow;
  /** As DICOM writes it: family^given. */
  readonly patient: string;
  /** Birth date, YYYYMMDD; empty for unknown. */
  readonly born: string;
  readonly eyes: Readonly<Partial<Record<Eye, { readonly power?: Refraction; readonly curves?: Required<Keratometry> }>>>;
  /** When, YYYYMMDD and HHMMSS. */
  readonly at: readonly [date: string, time: string];
}

/** Class, modality and names of each kind of object. Source: DICOM PS3.3 and PS3.6, ophthalmic refractive measurements. */
const OBJECTS: Readonly<Record<MeasuredHow, readonly [uid: string, modality: string, right: string, left: string]>> = {
  lensometry: ['1.2.840.10008.5.1.4.1.1.78.1', 'LEN', 'RightLensSequence', 'LeftLensSequence'],
  autorefraction: ['1.2.840.10008.5.1.4.1.1.78.2', 'AR', 'AutorefractionRightEyeSequence', 'AutorefractionLeftEyeSequence'],
  keratometry: ['1.2.840.10008.5.1.4.1.1.78.3', 'KER', 'KeratometryRightEyeSequence', 'KeratometryLeftEyeSequence'],
  subjectiveRefraction: ['1.2.840.10008.5.1.4.1.1.78.4', 'SRF', 'SubjectiveRefractionRightEyeSequence', 'SubjectiveRefractionLeftEyeSequence'],
};
const EXPLICIT_LITTLE_ENDIAN = '1.2.840.10008.1.2.1';

/** An identity under the root for those made from a UUID, 2.25. */
const uidOf = (text: string): string => `2.25.${BigInt(`0x${createHash('sha256').update(text).digest('hex').slice(0, 30)}`)}`;

function itemOf({ power, curves }: NonNullable<Measured['eyes'][Eye]>): Natural {
  const axis = (mm: number, degrees: number): readonly Natural[] => [{ RadiusOfCurvature: mm, KeratometricPower: 337.5 / mm, KeratometricAxis: degrees }];
  return {
    ...(power
      ? {
          SpherePower: power.sphere,
          ...(power.cylinder === 0 ? {} : { CylinderSequence: [{ CylinderPower: power.cylinder, CylinderAxis: power.axis }] }),
        }
      : {}),
    ...(curves
      ? {
          FlatKeratometricAxisSequence: axis(curves.flatMm, curves.flatAxis ?? 180),
          SteepKeratometricAxisSequence: axis(curves.steepMm, ((curves.flatAxis ?? 180) + 90) % 180),
        }
      : {}),
  };
}

/** A stand-in for an instrument that measures eyes: what it measured as a DICOM object, byte for byte the same for the same. */
export function refractorFile({ how, patient, born, eyes, at: [date, time] }: Measured): Uint8Array {
  const { DicomMetaDictionary, DicomDict } = dcmjs.data;
  const [uid, modality, right, left] = OBJECTS[how];
  const own = uidOf(JSON.stringify([how, patient, born, eyes, date, time]));
  // The head is denaturalised too: it is written as it stands.
  const meta = DicomMetaDictionary.denaturalizeDataset({
    FileMetaInformationVersion: new Uint8Array([0, 1]).buffer,
    MediaStorageSOPClassUID: uid,
    MediaStorageSOPInstanceUID: own,
    TransferSyntaxUID: EXPLICIT_LITTLE_ENDIAN,
    ImplementationClassUID: uidOf('refractor'),
  });
  const file = new DicomDict(meta);
  file.dict = DicomMetaDictionary.denaturalizeDataset({
    SOPClassUID: uid,
    SOPInstanceUID: own,
    StudyDate: date,
    ContentDate: date,
    StudyTime: time,
    ContentTime: time,
    AccessionNumber: '',
    Modality: modality,
    Manufacturer: 'Harbour Optics',
    ReferringPhysicianName: '',
    ManufacturerModelName: 'Sounder',
    PatientName: patient,
    PatientID: '1',
    PatientBirthDate: born,
    PatientSex: '',
    DeviceSerialNumber: '1',
    SoftwareVersions: '1',
    StudyInstanceUID: uidOf(`${own} study`),
    SeriesInstanceUID: uidOf(`${own} series`),
    StudyID: '1',
    SeriesNumber: '1',
    InstanceNumber: '1',
    MeasurementLaterality: eyes.right && eyes.left ? 'B' : eyes.right ? 'R' : 'L',
    ...(how === 'lensometry' ? { LensDescription: 'glasses worn' } : {}),
    ...(eyes.right ? { [right]: [itemOf(eyes.right)] } : {}),
    ...(eyes.left ? { [left]: [itemOf(eyes.left)] } : {}),
  });
  return new Uint8Array(file.write());
}
