import { useRef, useState } from 'react';
import type { Eye, OrderKind } from '@/core';
import type { AwaitedBoxes } from './ReceiptForm';
import type { NotTaken, ReadBox } from './ScanBox';

type Scanned = Readonly<Record<Eye, readonly ReadBox[]>>;
const NONE: Scanned = { right: [], left: [] };

/**
 * Boxes scanned so far, of each eye. They come faster than a page is drawn: each is held against those before it, not against the
 * last drawing.
 * @param onTaken told with all boxes of the eye that a box was taken for
 */
export function useScanned(kind: OrderKind, lines: readonly AwaitedBoxes[], onTaken: (eye: Eye, boxes: readonly ReadBox[]) => void) {
  const [shown, setShown] = useState<Scanned>(NONE);
  const now = useRef<Scanned>(NONE);
  const put = (next: Scanned): void => {
    now.current = next;
    setShown(next);
  };
  const leftOf = (eye: Eye): number => (lines.find((l) => l.eye === eye)?.missing ?? 0) - now.current[eye].length;
  return {
    scanned: shown,
    leftOf,
    take: (eye: Eye, box: ReadBox): NotTaken => {
      const { right, left } = now.current;
      if (box.serial !== null && [...right, ...left].some((b) => b.gtin === box.gtin && b.serial === box.serial)) return 'twice';
      // Of trial lenses a supplier may send more than were asked for.
      if (kind === 'supply' && leftOf(eye) <= 0) return 'full';
      if (now.current[eye].some((b) => b.lot !== box.lot || b.expiresOn !== box.expiresOn)) return 'another';
      put({ ...now.current, [eye]: [...now.current[eye], box] });
      onTaken(eye, now.current[eye]);
      return null;
    },
    forget: () => put(NONE),
  };
}
