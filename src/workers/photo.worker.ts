import { expose } from 'comlink';
import { findTurn, type AskedOfPhoto, type Circle, type ColourPicture, type TurnOfPhoto } from '../core';

/** Longest side that is read, pixels: more shows nothing more of a mark. */
const READ_AT = 800;

/** The pixels of a picture file, no larger than is read; turned by half a turn where it lies upside down. */
async function pixelsOf(file: Blob, upsideDown: boolean): Promise<{ readonly picture: ColourPicture; readonly scale: number }> {
  const bitmap = await createImageBitmap(file);
  const scale = Math.min(1, READ_AT / Math.max(bitmap.width, bitmap.height));
  const [width, height] = [Math.round(bitmap.width * scale), Math.round(bitmap.height * scale)];
  const pen = new OffscreenCanvas(width, height).getContext('2d', { willReadFrequently: true });
  if (!pen) throw new Error('no canvas');
  if (upsideDown) pen.setTransform(-1, 0, 0, -1, width, height);
  pen.drawImage(bitmap, 0, 0, width, height);
  bitmap.close();
  const { data } = pen.getImageData(0, 0, width, height);
  const rgb = new Uint8ClampedArray(width * height * 3);
  for (let i = 0, to = 0; i < data.length; i += 4) {
    rgb[to++] = data[i] ?? 0;
    rgb[to++] = data[i + 1] ?? 0;
    rgb[to++] = data[i + 2] ?? 0;
  }
  return { picture: { width, height, rgb }, scale };
}

const grown = (circle: Circle | null, by: number): Circle | null => circle && { x: circle.x * by, y: circle.y * by, r: circle.r * by };

const api = {
  /** Reads a picture. @returns circles in the pixels of the file, turned upright */
  read: async (file: Blob, upsideDown: boolean, asked: AskedOfPhoto): Promise<TurnOfPhoto> => {
    const { picture, scale } = await pixelsOf(file, upsideDown);
    const found = findTurn(picture, asked);
    const circles = { limbus: grown(found.limbus, 1 / scale), lens: grown(found.lens, 1 / scale) };
    return found.ok ? { ...found, limbus: circles.limbus ?? found.limbus, lens: circles.lens ?? found.lens } : { ...found, ...circles };
  },
};
export type PhotoApi = typeof api;

expose(api);
