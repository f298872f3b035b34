import {
  MULTIFOCAL_DESIGNS,
  type Dioptres,
  type Eye,
  type EyeThroughLens,
  type LensAdd,
  type Millimetres,
  type MultifocalDesign,
  type NextInput,
} from '@/core';

/** What is tried in thought: pupil, cylinder that is left, additions and their design; null: as they are. */
export interface WhatIf {
  readonly pupilMm: Millimetres;
  readonly cylinder: Dioptres | null;
  readonly design: MultifocalDesign | null;
  readonly adds: Readonly<Record<Eye, LensAdd | null | 'asIs'>>;
}
export const asItIs = ({ wearer }: NextInput): WhatIf => ({ pupilMm: wearer.pupilRoomMm, cylinder: null, design: null, adds: { right: 'asIs', left: 'asIs' } });

export const designOfText = (text: string): MultifocalDesign | null => MULTIFOCAL_DESIGNS.find((d) => d === text) ?? null;

/** The eyes with the pair that is on them, or with what is thought of, nothing accommodated. */
export function eyesThrough({ wearer, worn }: NextInput, { pupilMm, cylinder, design, adds }: WhatIf): Record<Eye, EyeThroughLens> {
  const pair = worn.at(-1)?.pair;
  const of = (eye: Eye): EyeThroughLens => {
    const own = wearer.eyes[eye];
    const lens = pair?.[eye];
    const add = adds[eye] === 'asIs' ? (lens?.add ?? null) : adds[eye];
    const near = add === null ? null : wearer.nearOf(add);
    return {
      sphereLeft: own.need - (lens?.sphere ?? own.need),
      halfCylinderLeft: cylinder !== null ? cylinder / 2 : lens?.toric ? own.halfCylinderToric : own.halfCylinder,
      near: near && { design: design ?? near.design, add: near.power },
      pupilMm,
      best: own.best,
      decentredMm: own.decentredMm,
    };
  };
  return { right: of('right'), left: of('left') };
}
