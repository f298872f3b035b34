'use client';
import { useEffect, useRef } from 'react';

/** The ink that the letters are drawn with, blue, green, red: the page's own. Where the lights are down the style sheet turns it light, at once. */
const INK = 0x141b21;

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
    for (let i = 0; i < pixels.length; i++) pixels[i] = ((seen[i] ?? 0) << 24) | INK;
    pen.putImageData(picture, 0, 0);
  }, [seen, width, height]);
  return (
    <span className={className}>
      <canvas ref={canvas} width={width} height={height} className="letters-ink" role="img" aria-label={label} />
    </span>
  );
}
