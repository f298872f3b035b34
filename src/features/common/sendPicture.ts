import type { Eye } from '@/core';
import type { Result } from '@/lib/outcome';

/** Files taken as pictures of an eye. */
export const PICTURE_KINDS = 'image/jpeg,image/png,image/webp';
/** Looked at here before it is sent, so that nobody waits for 40 MB to be refused. */
export const PICTURE_MAX_BYTES = 15 * 1024 * 1024;

interface PictureOf {
  readonly visit: string;
  readonly version: number;
  readonly eye: Eye;
  readonly title: string;
}

/** Sends a picture of an eye to the record; throws while the server is away. */
export async function sendPicture(file: File, { visit, version, eye, title }: PictureOf): Promise<Result<{ pictureId: string; placeRemoved: boolean }>> {
  const query = new URLSearchParams({ visit, version: String(version), eye, title });
  const response = await fetch(`/api/uploads/picture?${query.toString()}`, {
    method: 'POST',
    headers: { 'content-type': file.type || 'application/octet-stream' },
    body: file,
  });
  return (await response.json()) as Result<{ pictureId: string; placeRemoved: boolean }>;
}
