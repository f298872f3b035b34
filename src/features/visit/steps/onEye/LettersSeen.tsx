'use client';
import { useEffect, useRef } from 'react';

/** A picture of letters in the ink of the page. */
export function LettersSeen({
  seen,
  width,
  height,
  label,
}: {
  readonly seen: Float32Array;
  readonly width: number;
  readonly height: number;
  readonly label: string;
}) {
  const canvas = useRef<HTMLCanvasElement>(null);
  useEffect(() => {
    const on = canvas.current;
    const pen = on?.getContext('2d');
    if (!on || !pen) return;
    pen.fillStyle = getComputedStyle(on).color;
    pen.fillRect(0, 0, 1, 1);
    const [r = 0, g = 0, b = 0] = pen.getImageData(0, 0, 1, 1).data;
    const picture = pen.createImageData(width, height);
    for (let i = 0; i < seen.length; i++) picture.data.set([r, g, b, Math.round(Math.min(1, seen[i] ?? 0) * 255)], 4 * i);
    pen.putImageData(picture, 0, 0);
  }, [seen, width, height]);
  return <canvas ref={canvas} width={width} height={height} className="letters-seen" role="img" aria-label={label} />;
}
