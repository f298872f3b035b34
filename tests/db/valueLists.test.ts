import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  ACUITY_WAYS,
  ADD_BANDS,
  ADVERSE_EVENTS,
  AFTERCARE_OUTCOMES,
  AFTERCARE_QUESTION_IDS,
  ANSWER_OUTCOMES,
  APPOINTMENT_EVENTS,
  APPOINTMENT_STATES,
  CARE_REASONS,
  DEXTERITIES,
  LESSON_PARTS,
  MISSES,
  OFF_TECHNIQUES,
  ON_TECHNIQUES,
  SCENARIO_IDS,
  CARE_SYSTEMS,
  EYES,
  FACT_KIND_NAMES,
  FACT_KINDS,
  FIT_WORDS,
  GEOMETRIES,
  LENS_SIGNS,
  MARK_LAYOUTS,
  MODALITIES,
  MULTIFOCAL_DESIGNS,
  ORDER_STATES,
  OVER_CONTROLS,
  PLUS_HALF,
  PURPOSES,
  READ_HOW,
  REFERRAL_STEPS,
  SIGNS,
  SET_LENS_ENDS,
  STABILISATIONS,
  STEP_IDS,
  STOP_ENDINGS,
  TASK_EVENTS,
  TASK_KINDS,
  TRIAL_MOVEMENTS,
  COPIED_SIGNS,
  CONFIRMED_HOW,
  COPY_REQUEST_ENDS,
  COPY_WAYS,
  REORDER_OUTCOMES,
  LESION_KINDS,
  REQUEST_ANSWERS,
  TASK_BECAUSE,
  VISIT_KINDS,
  WORN_ANSWERS,
} from '../../src/core';
import { openWorld, type World } from './support';

let world: World;
const CHECKS = new Map<string, string>();
beforeAll(async () => {
  world = await openWorld();
  const rows = await world.db.owner<{ table: string; checks: string }[]>`
    select c.conrelid::regclass::text as table, string_agg(pg_get_constraintdef(c.oid), ' ' order by c.conname) as checks
    from pg_constraint c join pg_class k on k.oid = c.conrelid join pg_namespace n on n.oid = k.relnamespace
    where c.contype = 'c' and n.nspname = current_schema() group by 1`;
  for (const row of rows) CHECKS.set(row.table, row.checks);
}, 180_000);
afterAll(() => world.db.close());

const quoted = (list: string): string[] => [...list.matchAll(/'([^']+)'::text/g)].map((m) => m[1] ?? '').sort();
/** What the database lets a column hold. */
function allowed(table: string, column: string): string[] {
  const [, list] = new RegExp(`\\(?\\b${column} = ANY \\(ARRAY\\[([^\\]]+)\\]\\)`).exec(CHECKS.get(table) ?? '') ?? [];
  return quoted(list ?? '');
}
/** What the database lets a sign of a table say in words. */
function words(table: string): Map<string, string[]> {
  const found = new Map<string, string[]>();
  const branches = (CHECKS.get(table) ?? '').matchAll(
    /WHEN \((sign = '\w+'::text|sign = ANY \(ARRAY\[[^\]]+\]\))\) THEN \(word_value = (ANY \(ARRAY\[[^\]]+\]\)|'\w+'::text)\)/g,
  );
  for (const [, signs = '', list = ''] of branches) for (const sign of quoted(signs)) found.set(sign, quoted(list));
  return found;
}
const sorted = (list: readonly string[]): string[] => [...list].sort();

describe('what the code offers is what the database holds', () => {
  it.each<[string, string, readonly string[]]>([
    ['appointment', 'state', APPOINTMENT_STATES],
    ['appointment_event', 'kind', APPOINTMENT_EVENTS],
    ['appointment_event', 'state', APPOINTMENT_STATES],
    ['task', 'kind', TASK_KINDS],
    ['task_event', 'kind', TASK_EVENTS],
    ['eye_acuity', 'way', ACUITY_WAYS],
    ['worn_answer', 'answer', WORN_ANSWERS],
    ['fit_check', 'verdict', FIT_WORDS],
    ['rotation_reading', 'how', READ_HOW],
    ['over_refraction', 'plus_half', PLUS_HALF],
    ['over_refraction', 'control', OVER_CONTROLS],
    ['safety_stop_end', 'how', STOP_ENDINGS],
    ['prescription', 'purpose', PURPOSES],
    ['prescription_copy', 'how', COPY_WAYS],
    ['copy_request_end', 'how', COPY_REQUEST_ENDS],
    ['reorder_call', 'outcome', REORDER_OUTCOMES],
    ['request_dispatch', 'outcome', ANSWER_OUTCOMES],
    ['lens_confirmation', 'how', CONFIRMED_HOW],
    ['request_answer', 'answer', REQUEST_ANSWERS],
    ['request_answer', 'proposed', REQUEST_ANSWERS],
    ['corneal_lesion', 'kind', LESION_KINDS],
    ['aftercare_answer', 'question', AFTERCARE_QUESTION_IDS],
    ['aftercare_end', 'outcome', AFTERCARE_OUTCOMES],
    ['adverse_event', 'event', ADVERSE_EVENTS],
    ['eye_finding', 'sign', COPIED_SIGNS],
    ['task', 'because', TASK_BECAUSE],
    ['diagnostic_lens_end', 'why', SET_LENS_ENDS],
    ['lens_family_version', 'geometry', GEOMETRIES],
    ['lens_family_version', 'modality', MODALITIES],
    ['lens_family_version', 'mark_layout', MARK_LAYOUTS],
    ['lens_family_version', 'stabilisation', STABILISATIONS],
    ['lens_family_version', 'multifocal_design', MULTIFOCAL_DESIGNS],
    ['lens', 'add_band', ADD_BANDS],
    ['care_product', 'system', CARE_SYSTEMS],
    ['care_system', 'chosen_for', CARE_REASONS],
    ['lesson_exercise', 'scenario', SCENARIO_IDS],
    ['lesson_attempt', 'miss', MISSES],
    ['lesson_way', 'dexterity', DEXTERITIES],
    ['lesson_way', 'on_technique', ON_TECHNIQUES],
    ['lesson_way', 'off_technique', OFF_TECHNIQUES],
    ['lesson_show', 'part', LESSON_PARTS],
    ['refraction', 'eye', EYES],
    ['draft', 'step', STEP_IDS],
    ['visit', 'kind', VISIT_KINDS],
    ['appointment', 'kind', VISIT_KINDS],
    ['visit_decision', 'kind', VISIT_KINDS],
    ['visit_decision', 'proposed_kind', VISIT_KINDS],
    ['referral_step', 'step', REFERRAL_STEPS],
    ['trial_movement', 'kind', TRIAL_MOVEMENTS],
    ['order_event', 'state', ORDER_STATES],
  ])('%s.%s', (table, column, list) => {
    expect(allowed(table, column)).toEqual(sorted(list));
  });
  it.each(FACT_KIND_NAMES.map((kind) => [kind, FACT_KINDS[kind]] as const))(
    'the registry names the columns of %s',
    async (_kind, { table, columns, sequenced }) => {
      const COMMON = [
        'id',
        'practice_id',
        'visit_id',
        'visit_version',
        'eye',
        'observed_at',
        'recorded_at',
        'recorded_by',
        'root_id',
        'corrects_id',
        'reason',
        'voided',
      ];
      const rows = await world.db.owner<{ name: string }[]>`
      select column_name as name from information_schema.columns where table_schema = current_schema() and table_name = ${table} and is_generated = 'NEVER'`;
      const own = rows.map((r) => r.name).filter((name) => !COMMON.includes(name) && name !== 'sequence');
      expect(own.sort()).toEqual([...columns].sort());
      expect(rows.some((r) => r.name === 'sequence')).toBe(sequenced === true);
    },
  );
  it('the words of every finding of the eye', () => {
    const here = SIGNS.flatMap((s) => (s.kind === 'word' ? [[s.id, sorted(s.options)] as const] : []));
    expect(here.length).toBeGreaterThan(8);
    expect(Object.fromEntries(words('eye_finding'))).toEqual(Object.fromEntries(here));
  });
  it('the words of every finding of a lens; what was said under an earlier name can still be read', () => {
    const here = LENS_SIGNS.flatMap((s) => (s.kind === 'word' ? [[s.id, sorted(s.options)] as const] : []));
    expect(here.length).toBeGreaterThan(8);
    const { linePushUp, ...held } = Object.fromEntries(words('lens_finding'));
    expect(held).toEqual(Object.fromEntries(here));
    expect(linePushUp).toEqual(['less', 'middle', 'more']);
  });
});
