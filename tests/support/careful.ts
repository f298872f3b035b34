/** A history without anything that bears on lenses: every question answered, nothing found. */
export const CAREFUL = {
  danger: ['none'],
  dryness: 'none',
  medicines: [],
  drops: ['none'],
  allergy: ['none'],
  health: ['none'],
  eyeHistory: ['none'],
  handler: 'self',
  hygieneHands: 'good',
  hygieneCare: 'good',
  returns: 'yes',
  budget: 'open',
  nights: 'none',
};
