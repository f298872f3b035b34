import {
  parseLensAdd,
  isIsoDate,
  MODALITIES,
  PURPOSES,
  toMinusCylinder,
  type ExchangedLens,
  type ExchangedPerson,
  type ExchangedPrescriber,
  type ExchangedPrescription,
  type Eye,
  type ReadDocument,
} from '../../core';
import { err, ok, type ProblemData, type Result } from '../../lib/outcome';
import { EXTENSION } from './names';
import { isObject, isTooDeep, Walker, type Json } from './walk';

/** Why a file is no prescription at all: nothing of it is taken. */
export interface UnreadableFile {
  readonly code: 'filePrescriptionLarge' | 'fileNotJson' | 'fileTooDeep' | 'fileNoPrescription' | 'filePowerMissing' | 'filePowerOutside' | 'fileEyeTwice';
  readonly data: ProblemData;
}
/** A prescription with its people is a few kilobytes. */
export const MOST_BYTES = 1_000_000;
/** Further off than any lens: such a figure is a mistake, and is never taken. Millimetres and dioptres. */
const OUTSIDE = { power: 40, cylinder: 20, add: 6, curve: 12, diameter: 25 } as const;

const oneOf = <T extends string>(list: readonly T[], value: Json): T | null => list.find((v) => v === value) ?? null;

/** The value of one of our own extensions, and its path marked as understood. */
function extension(walk: Walker, from: Json, path: string, url: string, key: 'valueCode' | 'valueDate'): string | null {
  for (const { item, path: at } of walk.list(from, path, 'extension')) {
    if (!isObject(item) || item.url !== url || typeof item[key] !== 'string') continue;
    walk.all(at);
    return item[key];
  }
  return null;
}

const day = (text: string | null): string | null => (text !== null && isIsoDate(text.slice(0, 10)) ? text.slice(0, 10) : null);
/** One of the texts of a human name: as written, else its parts in order. */
function nameOf(walk: Walker, resource: Json, path: string): string {
  const [first] = walk.list(resource, path, 'name');
  if (!first) return '';
  const written = walk.text(first.item, first.path, 'text');
  if (written !== null) return written;
  if (!isObject(first.item)) return '';
  const given = Array.isArray(first.item.given) ? (first.item.given as Json[]).filter((part) => typeof part === 'string') : [];
  if (given.length > 0) walk.all(`${first.path}.given`);
  return [...given, walk.text(first.item, first.path, 'family') ?? ''].filter(Boolean).join(' ');
}
function phoneOf(walk: Walker, resource: Json, path: string): string | null {
  for (const { item, path: at } of walk.list(resource, path, 'telecom')) {
    if (!isObject(item) || item.system !== 'phone' || typeof item.value !== 'string') continue;
    walk.all(`${at}.system`);
    walk.all(`${at}.value`);
    return item.value;
  }
  return null;
}

function personOf(walk: Walker, resource: Json, path: string): ExchangedPerson {
  const birth = isObject(resource) && typeof resource.birthDate === 'string' && isIsoDate(resource.birthDate) ? walk.text(resource, path, 'birthDate') : null;
  return { name: nameOf(walk, resource, path), birthDate: birth, telephone: phoneOf(walk, resource, path) };
}
function prescriberOf(walk: Walker, resource: Json, path: string): ExchangedPrescriber {
  const [identifier] = walk.list(resource, path, 'identifier');
  if (identifier) walk.text(identifier.item, identifier.path, 'system');
  const [address] = walk.list(resource, path, 'address');
  return {
    name: nameOf(walk, resource, path),
    registerNumber: identifier ? walk.text(identifier.item, identifier.path, 'value') : null,
    telephone: phoneOf(walk, resource, path),
    address: address ? walk.text(address.item, address.path, 'text') : null,
  };
}

interface OneLens {
  readonly eye: Eye;
  readonly kind: ExchangedPrescription['kind'];
  readonly lens: ExchangedLens;
}
const within = (value: number | null, most: number): boolean => value === null || Math.abs(value) <= most;

function lensOf(walk: Walker, item: Json, path: string): Result<OneLens, UnreadableFile> {
  const eye = oneOf(['right', 'left'] as const, walk.text(item, path, 'eye'));
  const codings = isObject(item) && isObject(item.product) ? walk.list(item.product, `${path}.product`, 'coding') : [];
  const code = codings.map(({ item: coding, path: at }) => (walk.text(coding, at, 'system'), walk.text(coding, at, 'code')))[0];
  const kind = code === 'contact' ? 'contact' : 'spectacles';
  // A contact lens has its sphere under power, spectacles under sphere; some write either.
  const sphere = kind === 'contact' ? (walk.number(item, path, 'power') ?? walk.number(item, path, 'sphere')) : walk.number(item, path, 'sphere');
  const cylinder = walk.number(item, path, 'cylinder') ?? 0;
  const axis = walk.number(item, path, 'axis');
  if (eye === null || sphere === null || (cylinder !== 0 && axis === null)) return err({ code: 'filePowerMissing', data: { path } });
  const addD = walk.number(item, path, 'add');
  const baseCurveMm = walk.number(item, path, 'backCurve');
  const diameterMm = walk.number(item, path, 'diameter');
  const fits =
    within(sphere, OUTSIDE.power) &&
    within(cylinder, OUTSIDE.cylinder) &&
    within(addD, OUTSIDE.add) &&
    within(baseCurveMm, OUTSIDE.curve) &&
    within(diameterMm, OUTSIDE.diameter);
  if (!fits || (axis !== null && (axis < 0 || axis > 180))) return err({ code: 'filePowerOutside', data: { path } });
  // Plus cylinder is written in minus; axis 0 is 180.
  const power = toMinusCylinder({ sphere, cylinder, axis: axis ?? 180 });
  const lens: ExchangedLens = {
    power,
    add: parseLensAdd(extension(walk, item, path, EXTENSION.addBand, 'valueCode') ?? ''),
    addD,
    brand: walk.text(item, path, 'brand') ?? '',
    baseCurveMm,
    diameterMm,
    modality: oneOf(MODALITIES, extension(walk, item, path, EXTENSION.modality, 'valueCode')),
  };
  return ok({ eye, kind, lens });
}

function prescriptionOf(walk: Walker, resource: Json, path: string): Result<ExchangedPrescription, UnreadableFile> {
  const eyes: Record<Eye, ExchangedLens | null> = { right: null, left: null };
  let kind: ExchangedPrescription['kind'] = 'spectacles';
  for (const { item, path: at } of walk.list(resource, path, 'lensSpecification')) {
    const lens = lensOf(walk, item, at);
    if (!lens.ok) return lens;
    // Two lenses for one eye: nobody can say which is meant.
    if (eyes[lens.value.eye] !== null) return err({ code: 'fileEyeTwice', data: { path: at } });
    eyes[lens.value.eye] = lens.value.lens;
    kind = lens.value.kind;
  }
  if (eyes.right === null && eyes.left === null) return err({ code: 'fileNoPrescription', data: {} });
  const [identifier] = walk.list(resource, path, 'identifier');
  if (identifier) walk.text(identifier.item, identifier.path, 'system');
  walk.text(resource, path, 'status');
  const created = walk.text(resource, path, 'created');
  return ok({
    kind,
    number: identifier ? (walk.text(identifier.item, identifier.path, 'value') ?? '') : '',
    purpose: oneOf(PURPOSES, extension(walk, resource, path, EXTENSION.purpose, 'valueCode')),
    writtenOn: day(walk.text(resource, path, 'dateWritten')),
    createdAt: created !== null && day(created) !== null ? created : null,
    expiresOn: day(extension(walk, resource, path, EXTENSION.expires, 'valueDate')),
    eyes,
  });
}

/** What FHIR itself needs and nobody reads: identities, references and the text made for people. */
function markFrame(walk: Walker, resource: Json, path: string): void {
  for (const key of ['resourceType', 'id', 'text', 'meta', 'implicitRules', 'language', 'patient', 'prescriber', 'encounter']) walk.take(resource, path, key);
}

/**
 * Reads a FHIR R4 VisionPrescription, alone or in a bundle with its wearer and prescriber. What is not understood is left aside
 * and listed; a figure that cannot be a lens's, or an eye named twice, makes the whole file unreadable: half of it would be worse.
 * @source FHIR R4: HL7, from memory
 */
export function readFhir(text: string): Result<ReadDocument, UnreadableFile> {
  if (text.length > MOST_BYTES) return err({ code: 'filePrescriptionLarge', data: { most: MOST_BYTES } });
  let root: Json;
  try {
    root = JSON.parse(text.replace(/^\uFEFF/, ''));
  } catch {
    return err({ code: 'fileNotJson', data: {} });
  }
  if (isTooDeep(root)) return err({ code: 'fileTooDeep', data: {} });
  const walk = new Walker();
  const resources = isObject(root) && root.resourceType === 'Bundle' ? entriesOf(walk, root) : [{ resource: root, path: '$' }];
  let person: ExchangedPerson | null = null;
  let prescriber: ExchangedPrescriber | null = null;
  const prescriptions: ExchangedPrescription[] = [];
  for (const { resource, path } of resources) {
    if (!isObject(resource)) continue;
    const is = resource.resourceType;
    if (is === 'VisionPrescription') {
      const read = prescriptionOf(walk, resource, path);
      if (!read.ok) return read;
      prescriptions.push(read.value);
    } else if (is === 'Patient' && person === null) person = personOf(walk, resource, path);
    else if (is === 'Practitioner' && prescriber === null) prescriber = prescriberOf(walk, resource, path);
    else continue;
    markFrame(walk, resource, path);
  }
  if (prescriptions.length === 0) return err({ code: 'fileNoPrescription', data: {} });
  return ok({ document: { person, prescriber, prescriptions }, left: walk.left(root, '$') });
}

function entriesOf(walk: Walker, root: Json): readonly { readonly resource: Json; readonly path: string }[] {
  for (const key of ['resourceType', 'id', 'type', 'timestamp', 'meta']) walk.take(root, '$', key);
  return walk.list(root, '$', 'entry').map(({ item, path }) => {
    walk.take(item, path, 'fullUrl');
    return { resource: isObject(item) ? item.resource : null, path: `${path}.resource` };
  });
}
