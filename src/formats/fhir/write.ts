import type { Bundle, Patient, Practitioner, VisionPrescription, VisionPrescriptionLensSpecification } from 'fhir/r4';
import {
  EYES,
  formatRefraction,
  type ExchangedLens,
  type ExchangedPerson,
  type ExchangedPrescriber,
  type ExchangedPrescription,
  type Eye,
  type IsoInstant,
} from '../../core';
import { EXTENSION, SYSTEM } from './names';

const escaped = (text: string): string => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;');
const narrative = (lines: readonly string[]) => ({
  status: 'generated' as const,
  div: `<div xmlns="http://www.w3.org/1999/xhtml">${lines.map((line) => `<p>${escaped(line)}</p>`).join('')}</div>`,
});
/** One name of any people: as it is written, and nothing guessed about its parts. */
const nameOf = (name: string) => [{ text: name }];
const phone = (telephone: string | null) => (telephone ? { telecom: [{ system: 'phone' as const, value: telephone }] } : {});

function lensSpecification(eye: Eye, lens: ExchangedLens): VisionPrescriptionLensSpecification {
  const { power } = lens;
  const extension = [
    ...(lens.modality ? [{ url: EXTENSION.modality, valueCode: lens.modality }] : []),
    ...(lens.add ? [{ url: EXTENSION.addBand, valueCode: lens.add }] : []),
  ];
  return {
    ...(extension.length > 0 ? { extension } : {}),
    product: { coding: [{ system: SYSTEM.product, code: 'contact' }] },
    eye,
    // A contact lens has its sphere under power; an axis is whole in R4, and 180 rather than 0.
    power: power.sphere,
    ...(power.cylinder === 0 ? {} : { cylinder: power.cylinder, axis: Math.round(power.axis) }),
    ...(lens.addD === null ? {} : { add: lens.addD }),
    ...(lens.baseCurveMm === null ? {} : { backCurve: lens.baseCurveMm }),
    ...(lens.diameterMm === null ? {} : { diameter: lens.diameterMm }),
    ...(lens.brand === '' ? {} : { brand: lens.brand }),
  };
}

/** A prescription as it leaves: its own identity, and those of the people it names. */
export interface ToWrite {
  readonly id: string;
  readonly person: ExchangedPerson & { readonly id: string };
  readonly prescriber: ExchangedPrescriber & { readonly id: string };
  readonly prescription: ExchangedPrescription;
  readonly at: IsoInstant;
}

const lineOf = (eye: Eye, lens: ExchangedLens): string =>
  `${eye === 'right' ? 'R' : 'L'} ${formatRefraction(lens.power)}${lens.add ? ` ${lens.add}` : ''} ${lens.brand} ${lens.baseCurveMm ?? ''} / ${lens.diameterMm ?? ''}`;

function visionPrescription({ id, person, prescriber, prescription, at }: ToWrite): VisionPrescription {
  const { number, purpose, expiresOn, writtenOn, createdAt, eyes } = prescription;
  const specifications = EYES.flatMap((eye) => {
    const lens = eyes[eye];
    return lens ? [lensSpecification(eye, lens)] : [];
  });
  const extension = [
    ...(expiresOn ? [{ url: EXTENSION.expires, valueDate: expiresOn }] : []),
    ...(purpose ? [{ url: EXTENSION.purpose, valueCode: purpose }] : []),
  ];
  const lines = [
    `No. ${number}, ${person.name}`,
    ...EYES.flatMap((eye) => (eyes[eye] ? [lineOf(eye, eyes[eye])] : [])),
    ...(expiresOn ? [`Expires ${expiresOn}`] : []),
  ];
  return {
    resourceType: 'VisionPrescription',
    id,
    text: narrative(lines),
    ...(extension.length > 0 ? { extension } : {}),
    identifier: [{ system: SYSTEM.number, value: number }],
    status: 'active',
    created: createdAt ?? at,
    patient: { reference: `urn:uuid:${person.id}`, display: person.name },
    dateWritten: writtenOn ?? at.slice(0, 10),
    prescriber: { reference: `urn:uuid:${prescriber.id}`, display: prescriber.name },
    // R4 asks for one at least: a prescription names one eye at least.
    lensSpecification: specifications,
  };
}

/**
 * A prescription with its wearer and prescriber as a FHIR R4 bundle.
 * @source FHIR R4, VisionPrescription: HL7, from memory; checked in tests by two independent packages
 */
export function writeBundle(of: ToWrite): Bundle {
  const { person, prescriber, id, at } = of;
  const patient: Patient = {
    resourceType: 'Patient',
    id: person.id,
    text: narrative([person.name]),
    name: nameOf(person.name),
    ...phone(person.telephone),
    ...(person.birthDate ? { birthDate: person.birthDate } : {}),
  };
  const practitioner: Practitioner = {
    resourceType: 'Practitioner',
    id: prescriber.id,
    text: narrative([prescriber.name]),
    ...(prescriber.registerNumber ? { identifier: [{ system: SYSTEM.register, value: prescriber.registerNumber }] } : {}),
    name: nameOf(prescriber.name),
    ...phone(prescriber.telephone),
    ...(prescriber.address ? { address: [{ text: prescriber.address }] } : {}),
  };
  const entry = (uuid: string, resource: Patient | Practitioner | VisionPrescription) => ({ fullUrl: `urn:uuid:${uuid}`, resource });
  return {
    resourceType: 'Bundle',
    id: of.id,
    type: 'collection',
    timestamp: at,
    entry: [entry(person.id, patient), entry(prescriber.id, practitioner), entry(id, visionPrescription(of))],
  };
}
