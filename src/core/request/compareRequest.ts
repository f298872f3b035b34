import { formatRefraction } from '../optics/formatRefraction';
import type { Purpose } from '../supply/purpose';
import { EYES, type Eye, type IsoDate } from '../units';
import type { Refraction } from '../optics/refraction';

/** What a seller asks to be confirmed of one eye. */
export interface AskedLens {
  readonly power: Refraction;
  /** Low, medium, high; null for none. */
  readonly add: string | null;
  /** Maker and name of the lens, as written. */
  readonly lensName: string;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
  readonly boxes: number;
}
/** A seller's request as it came. */
export interface SellerRequest {
  readonly sellerName: string;
  /** Telephone, fax or mail address to answer to. */
  readonly sellerContact: string;
  readonly wearerName: string;
  readonly wearerAddress: string;
  /** The day on which the wearer asked the seller. */
  readonly askedOn: IsoDate | null;
  readonly eyes: Readonly<Record<Eye, AskedLens | null>>;
}
/** One prescription in force, as far as a request is compared with it. */
export interface InForce {
  readonly id: string;
  readonly number: number;
  readonly purpose: Purpose;
  readonly expiresOn: IsoDate;
  readonly eyes: Readonly<Record<Eye, PrescribedLens | null>>;
}
export interface PrescribedLens {
  readonly power: Refraction;
  readonly add: string | null;
  readonly maker: string;
  readonly familyName: string;
  readonly baseCurveMm: number | null;
  readonly diameterMm: number | null;
}

export const REQUEST_ANSWERS = ['correct', 'corrected', 'expired', 'invalid'] as const;
export type RequestAnswer = (typeof REQUEST_ANSWERS)[number];

/** Fields of a lens, in the order in which they are compared. */
export const LENS_FIELDS = ['power', 'add', 'lensName', 'baseCurveMm', 'diameterMm'] as const;
export type LensField = (typeof LENS_FIELDS)[number];
export interface Difference {
  readonly eye: Eye;
  readonly field: LensField | 'eye';
  readonly asked: string;
  readonly prescribed: string;
}
/** What a request lacks to count as complete. */
export type RequestGap = 'wearerName' | 'wearerAddress' | 'sellerName' | 'sellerContact' | 'askedOn' | 'eyes' | `${Eye}${'LensName' | 'BaseCurve' | 'Boxes'}`;

export interface Compared {
  /** The prescription it fits best; null where none is in force. */
  readonly prescription: InForce | null;
  readonly differences: readonly Difference[];
  readonly missing: readonly RequestGap[];
  readonly proposed: RequestAnswer;
  readonly because: 'asPrescribed' | 'differs' | 'expired' | 'noPrescription' | 'noWearer';
}

/** A name of a lens as it is compared: letters and figures alone, whatever their case. */
const plain = (text: string): string =>
  text
    .normalize('NFKD')
    .toLowerCase()
    .replace(/[^a-z0-9]/g, '');
/** Is a lens called this? By its own name, with or without its maker's. */
const isCalled = (asked: string, lens: PrescribedLens): boolean =>
  [lens.familyName, `${lens.maker} ${lens.familyName}`].some((name) => plain(name) === plain(asked));
const figure = (mm: number | null): string => (mm === null ? '' : mm.toFixed(1));
const samePower = (a: Refraction, b: Refraction): boolean => a.sphere === b.sphere && a.cylinder === b.cylinder && (a.cylinder === 0 || a.axis === b.axis);

function differencesOf(request: SellerRequest, eyes: InForce['eyes']): Difference[] {
  return EYES.flatMap((eye): Difference[] => {
    const asked = request.eyes[eye];
    if (!asked) return [];
    const lens = eyes[eye];
    if (!lens) return [{ eye, field: 'eye', asked: formatRefraction(asked.power), prescribed: '' }];
    const out: Difference[] = [];
    const differs = (field: LensField, is: boolean, a: string, b: string): void => {
      if (is) out.push({ eye, field, asked: a, prescribed: b });
    };
    differs('power', !samePower(asked.power, lens.power), formatRefraction(asked.power), formatRefraction(lens.power));
    differs('add', (asked.add ?? '') !== (lens.add ?? ''), asked.add ?? '', lens.add ?? '');
    differs('lensName', !isCalled(asked.lensName, lens), asked.lensName, `${lens.maker} ${lens.familyName}`);
    differs('baseCurveMm', figure(asked.baseCurveMm) !== figure(lens.baseCurveMm), figure(asked.baseCurveMm), figure(lens.baseCurveMm));
    // A diameter belongs to it where it was asked.
    differs('diameterMm', asked.diameterMm !== null && figure(asked.diameterMm) !== figure(lens.diameterMm), figure(asked.diameterMm), figure(lens.diameterMm));
    return out;
  });
}

/** What a request lacks: only a complete one counts. @source 16 CFR 315.5, from memory */
export function missingOf(request: SellerRequest): readonly RequestGap[] {
  const texts = (['wearerName', 'wearerAddress', 'sellerName', 'sellerContact'] as const).filter((key) => request[key].trim() === '');
  const eyes = EYES.flatMap((eye): RequestGap[] => {
    const asked = request.eyes[eye];
    if (!asked) return [];
    return [
      ...(asked.lensName.trim() === '' ? [`${eye}LensName` as const] : []),
      ...(asked.baseCurveMm === null ? [`${eye}BaseCurve` as const] : []),
      ...(asked.boxes < 1 ? [`${eye}Boxes` as const] : []),
    ];
  });
  return [
    ...texts,
    ...(request.askedOn === null ? (['askedOn'] as const) : []),
    ...(EYES.every((eye) => !request.eyes[eye]) ? (['eyes'] as const) : []),
    ...eyes,
  ];
}

/**
 * A request beside the prescriptions in force: field by field with the one it fits best, and the answer that follows. A person
 * answers.
 * @param prescriptions of the wearer, the newest of each purpose; null while nobody knows whose request it is
 * @example compareRequest({ sellerName: '', sellerContact: '', wearerName: '', wearerAddress: '', askedOn: null, eyes: { right: null, left: null } }, null, '2026-11-24').because → 'noWearer'
 * @source correct, corrected, expired, invalid: 16 CFR 315.5, from memory
 */
export function compareRequest(request: SellerRequest, prescriptions: readonly InForce[] | null, today: IsoDate): Compared {
  const missing = missingOf(request);
  if (prescriptions === null) return { prescription: null, differences: [], missing, proposed: 'invalid', because: 'noWearer' };
  const live = prescriptions.filter((p) => p.expiresOn >= today);
  // What still holds is compared first: an expired one that fits better is expired all the same.
  const of = live.length > 0 ? live : prescriptions;
  const [best] = of.map((p) => ({ p, differences: differencesOf(request, p.eyes) })).sort((a, b) => a.differences.length - b.differences.length);
  if (!best) return { prescription: null, differences: [], missing, proposed: 'invalid', because: 'noPrescription' };
  const { p: prescription, differences } = best;
  if (prescription.expiresOn < today) return { prescription, differences, missing, proposed: 'expired', because: 'expired' };
  return differences.length > 0
    ? { prescription, differences, missing, proposed: 'corrected', because: 'differs' }
    : { prescription, differences, missing, proposed: 'correct', because: 'asPrescribed' };
}

/**
 * Does an address to answer to look like a day rather than a number? A fax number typed as a date would never be reached.
 * @example looksLikeDay('12/11/2026') → true
 */
export const looksLikeDay = (contact: string): boolean =>
  /^\s*(\d{1,2}[./-]\d{1,2}[./-]\d{2,4}|\d{4}-\d{1,2}-\d{1,2}|\d{1,2}\.?\s+[a-z]{3,9}\.?,?\s+\d{2,4})\s*$/i.test(contact);
/** Can it be reached: a number of six figures or more, or a mail address? @example isReachable('fax 0555 0199') → true */
export const isReachable = (contact: string): boolean => /^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(contact.trim()) || contact.replace(/\D/g, '').length >= 6;
