'use client';
import { useId } from 'react';
import { blurDisc, fromPowerVector, toPowerVector, type Millimetres, type Refraction } from '../core';

export interface BlurredLettersProps {
  readonly letters: string;
  /** What the eye still asks for, D. */
  readonly residual: Refraction;
  readonly pupilMm: Millimetres;
  /** Height of a letter of the line shown, minutes of arc. */
  readonly letterArcmin: number;
  readonly label: string;
}

const LETTER_PX = 30;
const [WIDTH, HEIGHT] = [176, 48];
/** A disc of even light and a bell curve spread alike when the curve's SD is a quarter of the disc. */
const SD_OF_DISC = 0.25;

/** A line of letters through what is left uncorrected: each meridian blurred by its own disc. A model, not a photograph. */
export function BlurredLetters({ letters, residual, pupilMm, letterArcmin, label }: BlurredLettersProps) {
  const id = useId();
  const plain = fromPowerVector(toPowerVector(residual));
  const px = LETTER_PX / letterArcmin;
  const along = blurDisc(pupilMm, plain.sphere) * px * SD_OF_DISC;
  const across = blurDisc(pupilMm, plain.sphere + plain.cylinder) * px * SD_OF_DISC;
  const [x, y] = [WIDTH / 2, HEIGHT / 2];
  // The power along the axis is the sphere, so light spreads along the axis by the sphere's own disc.
  return (
    <svg viewBox={`0 0 ${WIDTH} ${HEIGHT}`} width={WIDTH} height={HEIGHT} role="img" aria-label={label} className="letters">
      <filter id={id} x="-50%" y="-100%" width="200%" height="300%">
        <feGaussianBlur stdDeviation={`${along.toFixed(2)} ${across.toFixed(2)}`} />
      </filter>
      <rect width={WIDTH} height={HEIGHT} fill="var(--field)" />
      <g transform={`rotate(${-plain.axis} ${x} ${y})`}>
        <g filter={`url(#${id})`}>
          <g transform={`rotate(${plain.axis} ${x} ${y})`}>
            <text x={x} y={y + LETTER_PX * 0.36} textAnchor="middle" fontSize={LETTER_PX} letterSpacing="6" fontWeight="700" fill="var(--ink)">
              {letters}
            </text>
          </g>
        </g>
      </g>
    </svg>
  );
}
