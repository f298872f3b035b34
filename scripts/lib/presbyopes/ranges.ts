/**
 * What made-up presbyopes are drawn from, and how the world may differ from what anybody who advises them takes for granted.
 * Nothing of the advice is known here, and nothing here is known to the advice. Figures: common practice and published
 * values from memory where named, else our own guesses, wide on purpose.
 */
export interface Ranges {
  /** Years. */
  readonly age: readonly [number, number];
  /** Amplitude about the mean line 18.5 − 0.3 · age (Hofstetter 1950, from memory), SD in D; never under `leastAmplitude`. */
  readonly amplitudeSd: number;
  readonly leastAmplitude: number;
  /** Error of the recorded refraction about the eye's own, SD in D of each eye. Common practice: repeats within a quarter. */
  readonly refractionSd: number;
  /** Error of a measured near addition, SD in D. */
  readonly addSd: number;
  /** Cylinder that spherical lenses leave, D. */
  readonly cylinder: readonly [number, number];
  /** Pupil in room light at 45 years, mm, SD; it gets smaller by `pupilPerYear`. */
  readonly pupilAt45: number;
  readonly pupilSd: number;
  readonly pupilPerYear: number;
  /** Spherical aberration of the eye, D of power per mm² of ring, plus at the rim. */
  readonly aberration: readonly [number, number];
  /** Best acuity without any blur, logMAR. */
  readonly best: readonly [number, number];
  /** Lens centre beside the pupil's, mm. */
  readonly decentred: readonly [number, number];
  /** Power of the near zone as made, against its label. */
  readonly addMade: readonly [number, number];
  /** Size of the zones on this eye, against the drawing. */
  readonly zones: readonly [number, number];
  /** How much of a difference between the eyes a wearer bears, D. */
  readonly bearsDifference: readonly [number, number];
  /** What a ghost or halo costs a wearer in satisfaction, at most. */
  readonly ghostCost: readonly [number, number];
  /** How much the dominant eye's own sight counts at distance beside both eyes' together. */
  readonly dominantWeight: readonly [number, number];
  /** Acuity a wearer wants at a task beyond what the task needs, SD in logMAR. */
  readonly wantsSd: number;
  /** Letters read again: SD in logMAR. Source: repeats within a line, common practice. */
  readonly chartSd: number;
  /** A satisfaction said again: SD in points of ten. */
  readonly saidSd: number;
  /** How often the test of dominance finds the right eye; else the other one, or none. */
  readonly dominanceFound: number;
  readonly dominanceUnknown: number;
  /** Tasks beside driving and reading that a wearer may have, how likely each. */
  readonly taskLikely: number;
}

export const USUAL: Ranges = {
  age: [42, 66],
  amplitudeSd: 0.6,
  leastAmplitude: 0.3,
  refractionSd: 0.22,
  addSd: 0.2,
  cylinder: [0, 0.6],
  pupilAt45: 4.6,
  pupilSd: 0.6,
  pupilPerYear: 0.03,
  aberration: [0, 0.12],
  best: [-0.12, 0.06],
  decentred: [0, 0.5],
  addMade: [0.85, 1.1],
  zones: [0.9, 1.15],
  bearsDifference: [0.75, 2],
  ghostCost: [0.3, 2.2],
  dominantWeight: [0, 0.5],
  wantsSd: 0.06,
  chartSd: 0.04,
  saidSd: 0.7,
  dominanceFound: 0.8,
  dominanceUnknown: 0.1,
  taskLikely: 0.5,
};

/** The world bent one way at a time: an advice that is right for one made-up world only is found out here. */
export const PERTURBED: Readonly<Record<string, Ranges>> = {
  usual: USUAL,
  youngPresbyopes: { ...USUAL, age: [40, 48] },
  oldPresbyopes: { ...USUAL, age: [58, 72] },
  smallPupils: { ...USUAL, pupilAt45: 3.6 },
  largePupils: { ...USUAL, pupilAt45: 5.8 },
  aberrated: { ...USUAL, aberration: [0.08, 0.22] },
  weakAdds: { ...USUAL, addMade: [0.6, 0.85] },
  strongAdds: { ...USUAL, addMade: [1.1, 1.35] },
  refractionOff: { ...USUAL, refractionSd: 0.4, addSd: 0.35 },
  decentredLenses: { ...USUAL, decentred: [0.4, 1] },
  noisyAnswers: { ...USUAL, chartSd: 0.08, saidSd: 1.4 },
  hardToPlease: { ...USUAL, ghostCost: [1.5, 4], wantsSd: 0.1 },
  strongDominance: { ...USUAL, dominantWeight: [0.5, 1], bearsDifference: [0.4, 1] },
  dominanceUnknown: { ...USUAL, dominanceFound: 0.5, dominanceUnknown: 0.5 },
  moreCylinder: { ...USUAL, cylinder: [0.4, 0.9] },
  manyTasks: { ...USUAL, taskLikely: 1 },
};
