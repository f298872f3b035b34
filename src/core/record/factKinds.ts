import { formatRefraction } from '../optics/formatRefraction';
import { columnsOfValue, eyeSignProblem, lensSignProblem, type NewValue, type NewValueKind, type NewValueProblem } from './corrections';
import type { AnyFact } from './fact';
import type { AdverseEventFact, ReturnToWearFact } from '../aftercare/adverseEvent';
import type {
  AcuityBothFact,
  AftercareAnswerFact,
  AftercareEndFact,
  AttemptFact,
  CareSystemFact,
  CornealLesionFact,
  EyeAcuityFact,
  FitFact,
  HandOverFact,
  HeldQuarterFact,
  LessonSightFact,
  LessonTurnFact,
  LessonInstructionFact,
  LessonWayFact,
  NearFindingFact,
  PairChangeFact,
  TaskSightFact,
  LensFindingFact,
  OnEyeFact,
  OverRefractionFact,
  PowerColumns,
  RecordedFinding,
  RefractionFact,
  RotationFact,
  TopicFact,
  WornAnswerFact,
} from './visitFacts';
import type { SliceName } from './visitSlices';

/** What a row of each kind of correctable clinical fact holds. */
export interface FactRows {
  readonly refraction: RefractionFact;
  readonly finding: RecordedFinding;
  readonly lensOnEye: OnEyeFact;
  readonly fit: FitFact;
  readonly rotation: RotationFact;
  readonly overRefraction: OverRefractionFact;
  readonly lensFinding: LensFindingFact;
  readonly acuityBoth: AcuityBothFact;
  readonly eyeAcuity: EyeAcuityFact;
  readonly cornealLesion: CornealLesionFact;
  readonly lessonAttempt: AttemptFact;
  readonly lessonTopic: TopicFact;
  readonly lessonWay: LessonWayFact;
  readonly lessonTurn: LessonTurnFact;
  readonly lessonSight: LessonSightFact;
  readonly nearFinding: NearFindingFact;
  readonly taskSight: TaskSightFact;
  readonly heldQuarter: HeldQuarterFact;
  readonly pairChange: PairChangeFact;
  readonly careSystem: CareSystemFact;
  readonly lessonInstruction: LessonInstructionFact;
  readonly handOver: HandOverFact;
  readonly wornAnswer: WornAnswerFact;
  readonly aftercareAnswer: AftercareAnswerFact;
  readonly aftercareEnd: AftercareEndFact;
  readonly adverseEvent: AdverseEventFact;
  readonly returnToWear: ReturnToWearFact;
}
export type FactKind = keyof FactRows;

interface FactKindEntry<Row extends AnyFact> {
  /** Its table in the database. */
  readonly table: string;
  /** The columns that hold its values: what a correction carries over where it changes nothing. */
  readonly columns: readonly string[];
  /** Facts of one command that have an order of their own: the blinks of a series, several findings at once. */
  readonly sequenced?: true;
  /** What its right value is given as; null: it can only be taken back. */
  readonly takes: NewValueKind | null;
  /** What is wrong with a new value, where that hangs on what the fact is about. */
  readonly problem?: (row: Row, value: NewValue) => NewValueProblem | null;
  /** How right and left change places when they were mixed up; a kind without it cannot be swapped. */
  readonly swap?: 'values' | 'series';
  /** A correction may bring an absolute stop about. */
  readonly opensStops?: true;
  /** The part of a visit that shows it. */
  readonly slice: SliceName;
  /** What it says, in figures, to whoever comes second. */
  readonly told: (row: Row) => string;
}

const power = (row: PowerColumns): string => formatRefraction({ sphere: row.sphereD, cylinder: row.cylinderD, axis: row.axisDeg });
const sign = (row: RecordedFinding | LensFindingFact): string =>
  `${row.sign} ${('typedText' in row ? row.typedText : null) ?? row.numberValue ?? row.wordValue ?? ''}`;
/** An examiner's left or right, as the slit lamp's arc is read. */
/** What is kept of the picture a turn was read off. */
const PHOTO_COLUMNS = ['picture_id', 'photo_roll_deg', 'photo_lid', 'photo_found_deg'] as const;
const turned = (left: number): string => `${Math.abs(left)}°${left > 0 ? ' L' : left < 0 ? ' R' : ''}`;

/**
 * The one registry of kinds of fact. Appending, correcting, taking back, swapping, listing, and telling of a change follow
 * from it: a new kind is an entry here, a row type in visitFacts, a migration, and its screen.
 */
export const FACT_KINDS: { readonly [K in FactKind]: FactKindEntry<FactRows[K]> } = {
  refraction: {
    table: 'refraction',
    columns: [
      'sphere_d',
      'cylinder_d',
      'axis_deg',
      'vertex_mm',
      'typed_text',
      'source',
      'add_d',
      'add_source',
      'near_cm',
      'near_acuity_log_mar',
      'near_acuity_typed',
      'prism_text',
      'acuity_log_mar',
      'acuity_typed',
    ],
    takes: 'power',
    swap: 'values',
    opensStops: true,
    slice: 'measures',
    told: power,
  },
  overRefraction: {
    table: 'over_refraction',
    columns: [
      'lens_on_eye_id',
      'sphere_d',
      'cylinder_d',
      'axis_deg',
      'vertex_mm',
      'typed_text',
      'acuity_log_mar',
      'acuity_typed',
      'provisional',
      'cylinder_tested',
      'plus_half',
      'control',
    ],
    takes: 'power',
    swap: 'values',
    slice: 'measures',
    told: power,
  },
  lensOnEye: {
    table: 'lens_on_eye',
    columns: ['lens_id', 'description', 'source', 'trial_number', 'trial_stock_id', 'diagnostic_lens_id', 'lot', 'expires_on', 'put_on_at'],
    takes: null,
    swap: 'values',
    slice: 'measures',
    told: (row) => row.description ?? '',
  },
  fit: { table: 'fit_check', columns: ['lens_on_eye_id', 'verdict', 'provisional'], takes: 'fit', slice: 'measures', told: (row) => row.verdict },
  rotation: {
    table: 'rotation_reading',
    columns: ['lens_on_eye_id', 'rotation_left_deg', 'how', 'provisional', 'series_no', 'scale_reading', 'instrument_id', ...PHOTO_COLUMNS],
    takes: 'rotation',
    sequenced: true,
    swap: 'series',
    slice: 'measures',
    told: (row) => turned(row.rotationLeftDeg),
  },
  lensFinding: {
    table: 'lens_finding',
    columns: ['lens_on_eye_id', 'sign', 'number_value', 'word_value', 'typed_text', 'provisional'],
    takes: 'sign',
    problem: lensSignProblem,
    sequenced: true,
    slice: 'measures',
    told: sign,
  },
  acuityBoth: {
    table: 'acuity_both',
    columns: ['right_lens_on_eye_id', 'left_lens_on_eye_id', 'acuity_log_mar', 'acuity_typed', 'provisional'],
    takes: 'acuity',
    slice: 'measures',
    told: (row) => row.acuityTyped,
  },
  eyeAcuity: { table: 'eye_acuity', columns: ['way', 'acuity_log_mar', 'acuity_typed'], takes: 'acuity', slice: 'measures', told: (row) => row.acuityTyped },
  finding: {
    table: 'eye_finding',
    columns: ['sign', 'number_value', 'word_value', 'copied_from_id'],
    takes: 'sign',
    problem: eyeSignProblem,
    sequenced: true,
    opensStops: true,
    slice: 'health',
    told: sign,
  },
  nearFinding: {
    table: 'near_finding',
    columns: ['sign', 'number_value', 'word_value', 'note'],
    takes: null,
    sequenced: true,
    slice: 'supply',
    told: (row) => `${row.sign} ${row.wordValue ?? row.numberValue ?? ''}`,
  },
  taskSight: {
    table: 'task_sight',
    columns: ['right_lens_on_eye_id', 'left_lens_on_eye_id', 'task', 'distance_cm', 'acuity_log_mar', 'acuity_typed', 'satisfaction', 'covered'],
    takes: null,
    sequenced: true,
    slice: 'measures',
    told: (row) => `${row.task} ${row.satisfaction}`,
  },
  heldQuarter: {
    table: 'held_quarter',
    columns: ['right_lens_on_eye_id', 'left_lens_on_eye_id', 'by_d', 'task', 'distance_cm', 'answer'],
    takes: null,
    sequenced: true,
    slice: 'measures',
    told: (row) => `${row.byD} ${row.task}`,
  },
  pairChange: {
    table: 'pair_change',
    columns: ['right_lens_on_eye_id', 'left_lens_on_eye_id', 'change', 'foretold', 'rule_version'],
    takes: null,
    slice: 'measures',
    told: (row) => row.change,
  },
  cornealLesion: {
    table: 'corneal_lesion',
    columns: ['kind', 'nasal_mm', 'up_mm', 'long_mm', 'across_mm'],
    takes: null,
    sequenced: true,
    opensStops: true,
    slice: 'health',
    told: (row) => `${row.kind} ${row.longMm} mm`,
  },
  aftercareAnswer: { table: 'aftercare_answer', columns: ['question', 'said'], takes: null, sequenced: true, slice: 'health', told: (row) => row.question },
  aftercareEnd: {
    table: 'aftercare_end',
    columns: ['outcome', 'note', 'pointed_to', 'rule_version', 'appointment_id', 'unbooked_reason'],
    takes: null,
    slice: 'health',
    told: (row) => row.outcome,
  },
  adverseEvent: {
    table: 'adverse_event',
    columns: ['event', 'lens_id', 'lot', 'began_on', 'lenses_off', 'note'],
    takes: null,
    slice: 'health',
    told: (row) => row.event,
  },
  returnToWear: {
    table: 'return_to_wear',
    columns: ['adverse_event_id', 'new_lens', 'new_case', 'drops_off', 'aftercare_on'],
    takes: null,
    slice: 'health',
    told: (row) => row.aftercareOn,
  },
  lessonAttempt: {
    table: 'lesson_attempt',
    columns: ['lesson_id', 'move', 'worked', 'unaided', 'miss', 'technique'],
    takes: null,
    slice: 'supply',
    told: () => '',
  },
  lessonTopic: { table: 'lesson_topic', columns: ['lesson_id', 'topic', 'at_end'], takes: null, sequenced: true, slice: 'supply', told: () => '' },
  lessonWay: {
    table: 'lesson_way',
    columns: ['lesson_id', 'hand', 'dexterity', 'skin_tone', 'on_technique', 'off_technique'],
    takes: null,
    slice: 'supply',
    told: (row) => row.hand,
  },
  lessonTurn: { table: 'lesson_turn', columns: ['lesson_id', 'turn', 'note'], takes: null, slice: 'supply', told: (row) => row.turn },
  lessonSight: {
    table: 'lesson_sight',
    columns: ['lesson_id', 'acuity_log_mar', 'acuity_typed'],
    takes: 'acuity',
    slice: 'supply',
    told: (row) => row.acuityTyped,
  },
  lessonInstruction: { table: 'lesson_instruction', columns: ['what', 'text', 'why'], takes: null, slice: 'supply', told: (row) => row.text },
  careSystem: {
    table: 'care_system',
    columns: ['product_id', 'care_product_id', 'product_name', 'chosen_for', 'note', 'overridden', 'override_note'],
    takes: null,
    slice: 'supply',
    told: (row) => row.productName,
  },
  wornAnswer: { table: 'worn_answer', columns: ['answer', 'lens_id', 'lens_on_eye_id'], takes: null, slice: 'supply', told: (row) => row.answer },
  handOver: {
    table: 'hand_over',
    columns: [
      'wearer_id',
      'lens_id',
      'source',
      'lens_on_eye_id',
      'order_line_id',
      'order_receipt_id',
      'lot',
      'expires_on',
      'opened_on',
      'lens_count',
      'teaching',
      'sign_off_id',
      'experience_note',
      'handed_on',
    ],
    takes: 'box',
    slice: 'supply',
    told: (row) => row.lot,
  },
};

/** All kinds of fact, in the order of the registry. */
export const FACT_KIND_NAMES = Object.keys(FACT_KINDS) as FactKind[];
export type SwappableKind = 'refraction' | 'overRefraction' | 'lensOnEye' | 'rotation';
/** Kinds whose two eyes can be swapped. */
export const SWAPPABLE = FACT_KIND_NAMES.filter((kind) => FACT_KINDS[kind].swap !== undefined) as SwappableKind[];

/** The name a column has in the database. */
const inDatabase = (name: string): string => name.replace(/[A-Z]/g, (letter) => `_${letter.toLowerCase()}`);

/** What a new value puts into a kind's own columns; the others are carried over. */
export const newColumns = (kind: FactKind, value: NewValue) =>
  Object.fromEntries(Object.entries(columnsOfValue(value)).filter(([name]) => FACT_KINDS[kind].columns.includes(inDatabase(name))));

/** What is wrong with a new value of a recorded fact; null when nothing is. */
export const newValueProblem = <K extends FactKind>(kind: K, row: FactRows[K], value: NewValue): NewValueProblem | null =>
  FACT_KINDS[kind].problem?.(row, value) ?? null;
