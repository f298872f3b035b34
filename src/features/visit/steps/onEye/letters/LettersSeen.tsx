'use client';
import { useEffect, useRef } from 'react';

/** The colour of a page's ink as a pixel without its density. */
function inkOf(on: Element): number {
  const [r = 0, g = 0, b = 0] = (getComputedStyle(on).color.match(/\d+/g) ?? []).map(Number);
  return (b << 16) | (g << 8) | r;
}

/** A picture of letters in the ink of the page. @param seen how dense the ink is, 0 to 255, pixel by pixel */
export function LettersSeen({
  seen,
  width,
  height,
  label,
  className = 'letters-seen',
}: {
  readonly seen: Uint8ClampedArray;
  readonly width: number;
  readonly height: number;
  readonly label: string;
  readonly className?: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const on = canvas.current;
    const pen = on?.getContext('2d');
    if (!on || !pen) return;
    const picture = pen.createImageData(width, height);
    // A pixel at once: it is drawn again with every step of a slider.
    const pixels = new Uint32Array(picture.data.buffer);
    const ink = inkOf(on);
    for (let i = 0; i < pixels.length; i++) pixels[i] = ((seen[i] ?? 0) << 24) | ink;
    pen.putImageData(picture, 0, 0);
  }, [seen, width, height]);
  return <canvas ref={canvas} width={width} height={height} className={className} role="img" aria-label={label} />;
}
