/** Lists that come as files: a line is one wearer, or the lenses of one lot. */
export const LIST_MAX_BYTES = 4 * 1024 * 1024;
export const LIST_MAX_LINES = 5000;

export const LENS_CELLS = ['family', 'power', 'add', 'base_curve', 'diameter'] as const;
const lensColumns = <const Eye extends 'right' | 'left'>(eye: Eye) => LENS_CELLS.map((cell) => `${eye}_${cell}` as const);
export const WEARER_COLUMNS = [
  'name',
  'birth_date',
  'telephone',
  'occupation',
  'guardian',
  'worn_as_of',
  ...lensColumns('right'),
  ...lensColumns('left'),
] as const;
export type WearerColumn = (typeof WEARER_COLUMNS)[number];
export const WEARERS_NEED: readonly WearerColumn[] = ['name', 'birth_date'];

export const TRIAL_COLUMNS = ['family', 'power', 'add', 'base_curve', 'diameter', 'lot', 'expires_on', 'count'] as const;
export type TrialColumn = (typeof TRIAL_COLUMNS)[number];
export const TRIALS_NEED: readonly TrialColumn[] = ['family', 'power', 'lot', 'expires_on', 'count'];
