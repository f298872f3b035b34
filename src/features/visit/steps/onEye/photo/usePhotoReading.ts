import { useEffect, useRef, useState } from 'react';
import type { AskedOfPhoto, TurnOfPhoto } from '@/core';
import { startPhoto } from '@/workers/photo';

/** A picture of the eye that lies in the record. */
export interface Shot {
  readonly id: string;
  readonly width: number;
  readonly height: number;
}
/** What the program says of a picture: nothing yet, that it could not look, or what it found. */
export type PhotoFound = 'reading' | 'away' | TurnOfPhoto;

/** What is asked of a picture, as text: only a changed question reads it again. */
export const askedKey = (shot: Shot, upsideDown: boolean, asked: AskedOfPhoto): string => JSON.stringify([shot.id, upsideDown, asked]);

/** Reads pictures in a thread; each question once. @param key null for none */
export function usePhotoReading(key: string | null): PhotoFound | null {
  const [found, setFound] = useState<Readonly<Record<string, PhotoFound>>>({});
  const thread = useRef<ReturnType<typeof startPhoto>>(null);
  useEffect(
    () => () => {
      thread.current?.end();
      thread.current = null;
    },
    [],
  );
  const known = key !== null && found[key] !== undefined;
  useEffect(() => {
    if (key === null || known) return;
    const tell = (what: PhotoFound): void => setFound((before) => ({ ...before, [key]: what }));
    const [id, upsideDown, asked] = JSON.parse(key) as [string, boolean, AskedOfPhoto];
    const read = async (): Promise<void> => {
      try {
        const file = await (await fetch(`/api/pictures/${id}`)).blob();
        thread.current ??= startPhoto(() => tell('away'));
        tell(thread.current ? await thread.current.api.read(file, upsideDown, asked) : 'away');
      } catch {
        tell('away');
      }
    };
    void read();
  }, [key, known]);
  return key === null ? null : (found[key] ?? 'reading');
}
