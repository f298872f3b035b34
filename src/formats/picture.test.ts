import sharp from 'sharp';
import { describe, expect, it } from 'vitest';
import { PICTURE_MAX_BYTES, pictureType, remakePicture } from './picture';

const plain = (width = 40, height = 20) => sharp({ create: { width, height, channels: 3, background: '#336699' } });

describe('what a file is, by its first bytes', () => {
  it.each([
    ['png', 'image/png'],
    ['jpeg', 'image/jpeg'],
    ['webp', 'image/webp'],
    ['gif', null],
    ['tiff', null],
  ] as const)('%s → %s', async (format, type) => {
    expect(pictureType(await plain().toFormat(format).toBuffer())).toBe(type);
  });
  it('text, nothing, and nearly a picture are none', () => {
    for (const bytes of [Buffer.from('<svg/>'), Buffer.alloc(0), Buffer.from([0xff, 0xd8])]) expect(pictureType(bytes)).toBeNull();
  });
});

describe('made anew', () => {
  it('turned upright by what the file says of itself', async () => {
    const onItsSide = await plain(40, 20).jpeg().withMetadata({ orientation: 6 }).toBuffer();
    const made = await remakePicture(onItsSide, 'image/jpeg');
    expect(made).toMatchObject({ ok: true, value: { width: 20, height: 40, placeRemoved: false } });
    if (made.ok) expect((await sharp(made.value.bytes).metadata()).orientation).toBeUndefined();
  });
  it('no larger than 2400 pixels a side, never enlarged', async () => {
    expect(await remakePicture(await plain(3000, 1500).jpeg().toBuffer(), 'image/jpeg')).toMatchObject({ value: { width: 2400, height: 1200 } });
    expect(await remakePicture(await plain(100, 50).jpeg().toBuffer(), 'image/jpeg')).toMatchObject({ value: { width: 100, height: 50 } });
  });
  it('a see-through picture is laid on white', async () => {
    const glass = await sharp({ create: { width: 20, height: 20, channels: 4, background: { r: 0, g: 0, b: 0, alpha: 0 } } })
      .png()
      .toBuffer();
    const made = await remakePicture(glass, 'image/png');
    if (!made.ok) throw new Error(made.error.code);
    const { data } = await sharp(made.value.bytes).raw().toBuffer({ resolveWithObject: true });
    expect(Math.min(...data.subarray(0, 30))).toBeGreaterThan(250);
  });
  it('more pixels than can be opened in safety, and one of a few, are refused', async () => {
    const bomb = await plain(10_000, 7000).png({ compressionLevel: 9 }).toBuffer();
    expect(bomb.byteLength).toBeLessThan(PICTURE_MAX_BYTES);
    expect(await remakePicture(bomb, 'image/png')).toMatchObject({ ok: false, error: { code: 'picturePixels', data: { megapixels: 70, max: 60 } } });
    expect(await remakePicture(await plain(8, 8).png().toBuffer(), 'image/png')).toMatchObject({ ok: false, error: { code: 'pictureTooSmall' } });
  });
});
