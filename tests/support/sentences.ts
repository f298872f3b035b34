/** A prescriber's sentence for all that a last look may ask of a visit built for another purpose; what is not asked is not kept. */
export const SENTENCES = [
  { eye: null, code: 'dangerUnasked', reason: 'asked by telephone this morning' },
  ...(['right', 'left'] as const).flatMap((eye) =>
    ['corneaUngraded', 'fitUnread', 'turnUnread', 'minusUnread', 'cylinderSphereFirst'].map((code) => ({ eye, code, reason: 'looked at elsewhere today' })),
  ),
];
