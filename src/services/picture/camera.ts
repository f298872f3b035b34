import 'server-only';
import type { Degrees, Eye, MarkLayout } from '../../core';
import { PICTURE_MAX_BYTES, remakePicture, type RemadePicture } from '../../formats/picture';
import { invalid, ok, ruleBroken, type Result } from '../../lib/outcome';

/** What stands in front of the camera. A real one sees it; the simulated one has to be told. */
interface BeforeCamera {
  readonly eye: Eye;
  readonly layout: MarkLayout;
  readonly spacing: Degrees;
}
/** A picture that is not there by then does not come, ms: the page gives up after 20 s. */
const WAIT_MS = 6000;

async function shot(cameraUrl: string, { eye, layout, spacing }: BeforeCamera, number: number): Promise<Uint8Array | null> {
  const query = new URLSearchParams({ eye, marks: layout, spacing: String(spacing), shot: String(number) });
  try {
    const response = await fetch(new URL(`/picture?${query.toString()}`, cameraUrl), { redirect: 'error', signal: AbortSignal.timeout(WAIT_MS) });
    if (!response.ok || Number(response.headers.get('content-length') ?? '0') > PICTURE_MAX_BYTES) return null;
    return new Uint8Array(await response.arrayBuffer());
  } catch {
    return null;
  }
}

/** Pictures taken one after another: all of them, or none. What the camera sends is made anew like any other picture. */
export async function takenByCamera(cameraUrl: string, before: BeforeCamera, count: number): Promise<Result<readonly RemadePicture[]>> {
  const pictures: RemadePicture[] = [];
  for (let number = 0; number < count; number++) {
    const bytes = await shot(cameraUrl, before, number);
    if (bytes === null) return ruleBroken('cameraSilent');
    const made = await remakePicture(bytes, 'image/jpeg');
    if (!made.ok) return invalid('picture', made.error.code, made.error.data);
    pictures.push(made.value);
  }
  return ok(pictures);
}
