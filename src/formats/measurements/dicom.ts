import dcmjs, { type Natural } from 'dcmjs';
import {
  CURVE_LIMIT,
  EYES,
  inOrder,
  inQuarters,
  LIMITS,
  radiusOfPower,
  toMinusCylinder,
  withinLimit,
  type ExchangedPerson,
  type Eye,
  type Keratometry,
  type LeftAside,
  type MeasuredEye,
  type MeasuredFile,
  type MeasuredHow,
  type Refraction,
} from '../../core';
import { err, ok, type Result } from '../../lib/outcome';

/** Why nothing is taken of a file. */
export interface UnreadableMeasurement {
  readonly code: 'dicomUnreadable' | 'dicomDeflated' | 'dicomOther' | 'measurementEmpty' | 'measurementOut';
  readonly data: Readonly<Record<string, string | number>>;
}

/** Objects that are read: their class, how their figures came about, and the sequence of each eye. Source: DICOM PS3.3, ophthalmic refractive measurements. */
const KINDS: Readonly<Record<string, { readonly how: MeasuredHow; readonly right: string; readonly left: string }>> = {
  '1.2.840.10008.5.1.4.1.1.78.1': { how: 'lensometry', right: 'RightLensSequence', left: 'LeftLensSequence' },
  '1.2.840.10008.5.1.4.1.1.78.2': { how: 'autorefraction', right: 'AutorefractionRightEyeSequence', left: 'AutorefractionLeftEyeSequence' },
  '1.2.840.10008.5.1.4.1.1.78.3': { how: 'keratometry', right: 'KeratometryRightEyeSequence', left: 'KeratometryLeftEyeSequence' },
  '1.2.840.10008.5.1.4.1.1.78.4': { how: 'subjectiveRefraction', right: 'SubjectiveRefractionRightEyeSequence', left: 'SubjectiveRefractionLeftEyeSequence' },
};
/** A file packed in itself could unpack to any size. */
const DEFLATED = '1.2.840.10008.1.2.1.99';
/** Where the mark of a DICOM file stands. */
const MARK_AT = 128;

/** Is a file DICOM, by its mark? */
export const isDicom = (bytes: Uint8Array): boolean => String.fromCharCode(...bytes.subarray(MARK_AT, MARK_AT + 4)) === 'DICM';

/** The first of a sequence; null for none. */
function first(of: unknown): Natural | null {
  const one: unknown = Array.isArray(of) ? of[0] : of;
  return typeof one === 'object' && one !== null ? (one as Natural) : null;
}
function number(of: Natural | null, name: string): number | null {
  const value: unknown = of?.[name];
  const one: unknown = Array.isArray(value) ? value[0] : value;
  return typeof one === 'number' && Number.isFinite(one) ? one : null;
}
function text(of: Natural, name: string): string | null {
  const value: unknown = of[name];
  return typeof value === 'string' && value.trim() !== '' ? value.trim().slice(0, 200) : null;
}

/** A name as DICOM writes it, family^given^middle, in reading order. */
function personOf(of: Natural): ExchangedPerson | null {
  const written: unknown = of.PatientName;
  const one = first(written);
  const name = typeof written === 'string' ? written : one && typeof one.Alphabetic === 'string' ? one.Alphabetic : null;
  if (name === null || name.trim() === '') return null;
  const [family = '', ...given] = name.split('=')[0]?.split('^') ?? [];
  const born = text(of, 'PatientBirthDate');
  const day = born !== null && /^\d{8}$/.test(born) ? `${born.slice(0, 4)}-${born.slice(4, 6)}-${born.slice(6, 8)}` : null;
  return { name: [...given.slice(0, 2), family].filter((part) => part.trim() !== '').join(' '), birthDate: day, telephone: null };
}

/** When it was measured: the content's date and time, else the study's, as the instrument's clock had it. */
function momentOf(of: Natural): string | null {
  const date = text(of, 'ContentDate') ?? text(of, 'StudyDate');
  const time = text(of, 'ContentTime') ?? text(of, 'StudyTime');
  if (date === null || !/^\d{8}$/.test(date)) return null;
  const day = `${date.slice(0, 4)}-${date.slice(4, 6)}-${date.slice(6, 8)}`;
  return time !== null && /^\d{4}/.test(time) ? `${day}T${time.slice(0, 2)}:${time.slice(2, 4)}` : day;
}

/** A power of an eye, as the object has it; what cannot be is refused. */
function powerOf(item: Natural, path: string, left: LeftAside[]): Result<Refraction | null, UnreadableMeasurement> {
  const sphere = number(item, 'SpherePower');
  if (sphere === null) return ok(null);
  const cylinderItem = first(item.CylinderSequence);
  const cylinder = number(cylinderItem, 'CylinderPower') ?? 0;
  const axis = number(cylinderItem, 'CylinderAxis');
  if (cylinder !== 0 && axis === null) return err({ code: 'measurementOut', data: { what: `${path}.CylinderAxis`, value: '–' } });
  const measured = toMinusCylinder({ sphere, cylinder, axis: axis === null || axis === 0 ? 180 : axis });
  if (!withinLimit(measured.sphere, LIMITS.sphere) || measured.cylinder < LIMITS.cylinder.min || !(measured.axis > 0 && measured.axis <= 180))
    return err({ code: 'measurementOut', data: { what: path, value: `${sphere} ${cylinder} ${axis ?? ''}` } });
  const power = inQuarters(measured);
  if (power.sphere !== measured.sphere || power.cylinder !== measured.cylinder || power.axis !== measured.axis)
    left.push({ path: `${path}.rounded`, value: `${measured.sphere.toFixed(2)} ${measured.cylinder.toFixed(2)} × ${measured.axis}` });
  return ok(power);
}

/** The curves of an eye: radii in mm, else from the powers. */
function curvesOf(item: Natural, path: string): Result<Keratometry | null, UnreadableMeasurement> {
  const radius = (name: string): number | null => {
    const one = first(item[name]);
    const power = number(one, 'KeratometricPower');
    return number(one, 'RadiusOfCurvature') ?? (power === null || power === 0 ? null : radiusOfPower(power));
  };
  const [flatMm, steepMm] = [radius('FlatKeratometricAxisSequence'), radius('SteepKeratometricAxisSequence')];
  if (flatMm === null || steepMm === null) return ok(null);
  for (const mm of [flatMm, steepMm])
    if (!(mm >= CURVE_LIMIT.min && mm <= CURVE_LIMIT.max)) return err({ code: 'measurementOut', data: { what: path, value: mm } });
  const axis = number(first(item.FlatKeratometricAxisSequence), 'KeratometricAxis');
  return ok(inOrder({ flatMm, steepMm, flatAxis: axis === null ? null : Math.round(axis) === 0 ? 180 : Math.round(axis) }));
}

/** The data set of a file; null where it is none. */
function dataOf(bytes: Uint8Array): Natural | null {
  try {
    dcmjs.log.setLevel('silent');
    const whole = bytes.buffer.slice(bytes.byteOffset, bytes.byteOffset + bytes.byteLength) as ArrayBuffer;
    return dcmjs.data.DicomMetaDictionary.naturalizeDataset(dcmjs.data.DicomMessage.readFile(whole).dict);
  } catch {
    return null;
  }
}

/**
 * Reads an ophthalmic refractive measurement: autorefraction, subjective refraction, lensometry, keratometry.
 * Powers come in minus cylinder and in quarters; what was rounded is said.
 */
export function readDicom(bytes: Uint8Array): Result<MeasuredFile, UnreadableMeasurement> {
  if (new TextDecoder('latin1').decode(bytes.subarray(MARK_AT, MARK_AT + 1024)).includes(DEFLATED)) return err({ code: 'dicomDeflated', data: {} });
  const data = dataOf(bytes);
  if (data === null) return err({ code: 'dicomUnreadable', data: {} });
  const kind = KINDS[text(data, 'SOPClassUID') ?? ''];
  if (!kind) return err({ code: 'dicomOther', data: { uid: text(data, 'SOPClassUID') ?? '–' } });
  const left: LeftAside[] = [];
  const eyes: Record<Eye, MeasuredEye | null> = { right: null, left: null };
  for (const eye of EYES) {
    const item = first(data[kind[eye]]);
    if (item === null) continue;
    const power = powerOf(item, kind[eye], left);
    if (!power.ok) return power;
    const curves = curvesOf(item, kind[eye]);
    if (!curves.ok) return curves;
    if (power.value !== null || curves.value !== null) eyes[eye] = { power: power.value, curves: curves.value };
  }
  if (eyes.right === null && eyes.left === null) return err({ code: 'measurementEmpty', data: {} });
  const device = [text(data, 'Manufacturer'), text(data, 'ManufacturerModelName')].filter((v) => v !== null).join(' ');
  const vertexMm = number(data, 'VertexDistance');
  return ok({
    person: personOf(data),
    measuredAt: momentOf(data),
    device: device === '' ? null : device,
    parts: [{ how: kind.how, vertexMm: vertexMm !== null && withinLimit(vertexMm, LIMITS.vertexMm) ? vertexMm : null, eyes }],
    left,
  });
}
