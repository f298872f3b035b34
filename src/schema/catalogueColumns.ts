/**
 * A line of a lens catalogue: one block of one family, the family's own facts repeated on each of its lines.
 * The same reading serves a file and the form in which one family is changed.
 */
export const FAMILY_COLUMNS = [
  'family_code',
  'maker',
  'name',
  'geometry',
  'modality',
  'material',
  'water_percent',
  'dk',
  'dkt_centre',
  'dkt_thickest',
  'modulus_mpa',
  'ionic_group',
  'overnight_approved',
  'min_age',
  'myopia_hours',
  'myopia_days',
  'mark_layout',
  'stabilisation',
  'rotation_mean',
  'rotation_sd',
  'settle_minutes',
  'pack_size',
  'pack_price',
  'rebate',
  'lead_days',
  'multifocal_design',
  'add_table',
  'start_table',
  'change_rule',
  'reusable_trial',
  'irregular',
  'mark_spacing',
  'sight_minutes',
  'set_table',
  'disinfect_with',
  'disinfect_minutes',
] as const;
export const BLOCK_COLUMNS = ['sphere_from', 'sphere_to', 'sphere_step', 'cylinders', 'axis_from', 'axis_to', 'axis_step', 'adds', 'curves'] as const;
export const CATALOGUE_COLUMNS = [...FAMILY_COLUMNS, ...BLOCK_COLUMNS] as const;
export type CatalogueColumn = (typeof CATALOGUE_COLUMNS)[number];
export const isCatalogueColumn = (name: string): name is CatalogueColumn => (CATALOGUE_COLUMNS as readonly string[]).includes(name);

/** Columns without which nothing can be read; the others may be left out of a file. */
export const NEEDED_COLUMNS: readonly CatalogueColumn[] = [
  'family_code',
  'maker',
  'name',
  'geometry',
  'modality',
  'material',
  'settle_minutes',
  'pack_size',
  'pack_price',
  'lead_days',
  'sphere_from',
  'sphere_to',
  'sphere_step',
  'curves',
];

export type Cells = Readonly<Partial<Record<CatalogueColumn, string>>>;
