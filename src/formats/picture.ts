import exifReader from 'exif-reader';
import sharp from 'sharp';
import { err, ok, type ProblemData, type Result } from '../lib/outcome';

/** Largest file taken, bytes; most pixels opened; longest side kept. Own choice. */
export const PICTURE_MAX_BYTES = 15 * 1024 * 1024;
const MAX_PIXELS = 60_000_000;
const LONGEST_SIDE = 2400;
const SMALLEST_SIDE = 16;

export interface RemadePicture {
  readonly bytes: Uint8Array;
  readonly width: number;
  readonly height: number;
  /** The file said where it was taken; that is gone now. */
  readonly placeRemoved: boolean;
}
export interface PictureProblem {
  readonly code: string;
  readonly data: ProblemData;
}

const startsWith = (bytes: Uint8Array, ...wanted: readonly number[]): boolean => wanted.every((b, i) => bytes[i] === b);
const ascii = (bytes: Uint8Array, from: number, to: number): string => String.fromCharCode(...bytes.subarray(from, to));

/** What a file is by its first bytes; null when it is no picture taken here. */
export function pictureType(bytes: Uint8Array): 'image/jpeg' | 'image/png' | 'image/webp' | null {
  if (startsWith(bytes, 0xff, 0xd8, 0xff)) return 'image/jpeg';
  if (startsWith(bytes, 0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a)) return 'image/png';
  if (ascii(bytes, 0, 4) === 'RIFF' && ascii(bytes, 8, 12) === 'WEBP') return 'image/webp';
  return null;
}

function saysPlace(exif: Buffer | undefined): boolean {
  if (!exif) return false;
  try {
    const read = exifReader(exif);
    return read.GPSInfo !== undefined && Object.keys(read.GPSInfo).length > 0;
  } catch {
    return false;
  }
}

/**
 * Opens a picture and makes it anew from its pixels: turned upright, at most 2400 pixels a side, as JPEG. Whatever
 * else the file carried (place, names, scripts, a second file behind it) does not come along.
 * @param declaredType what the sender says it is; a file that is something else is refused
 */
export async function remakePicture(bytes: Uint8Array, declaredType: string): Promise<Result<RemadePicture, PictureProblem>> {
  if (bytes.byteLength > PICTURE_MAX_BYTES)
    return err({ code: 'pictureTooLarge', data: { mb: Math.round(bytes.byteLength / 1048576), max: PICTURE_MAX_BYTES / 1048576 } });
  const type = pictureType(bytes);
  if (type === null) return err({ code: 'pictureKind', data: {} });
  if (declaredType !== type) return err({ code: 'pictureLies', data: { declared: declaredType || '?', actual: type } });
  try {
    const opened = sharp(bytes, { limitInputPixels: MAX_PIXELS, failOn: 'error', animated: false });
    // The head of the file alone: nothing is unpacked yet.
    const { exif, width, height } = await sharp(bytes, { limitInputPixels: false }).metadata();
    if (width * height > MAX_PIXELS) return err({ code: 'picturePixels', data: { megapixels: Math.round((width * height) / 1e6), max: MAX_PIXELS / 1e6 } });
    if (Math.min(width, height) < SMALLEST_SIDE) return err({ code: 'pictureTooSmall', data: { min: SMALLEST_SIDE } });
    const { data, info } = await opened
      .rotate()
      .resize({ width: LONGEST_SIDE, height: LONGEST_SIDE, fit: 'inside', withoutEnlargement: true })
      .flatten({ background: '#ffffff' })
      .jpeg({ quality: 88 })
      .toBuffer({ resolveWithObject: true });
    return ok({ bytes: data, width: info.width, height: info.height, placeRemoved: saysPlace(exif) });
  } catch {
    return err({ code: 'pictureUnreadable', data: {} });
  }
}
