import 'server-only';
import type { CylinderTry, Eye, GuidedCylinder } from '../core';
import type { Db } from './client';

/** Cylinders of a visit that were looked for step by step, in that order. */
export const listGuided = (sql: Db, practiceId: string, visitId: string) => sql<GuidedCylinder[]>`
  select g.id, g.lens_on_eye_id, g.eye, g.start_axis, g.blur_at as blur, g.axis, g.tries, g.cylinder_d as cylinder, g.found_at, p.display_name as found_by_name
  from guided_cylinder g join person p on p.id = g.found_by
  where g.practice_id = ${practiceId} and g.visit_id = ${visitId} order by g.sequence`;

export interface NewGuided {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly lensOnEyeId: string;
  readonly eye: Eye;
  readonly startAxis: number | null;
  readonly blur: readonly [number, number];
  readonly axis: number;
  readonly tries: readonly CylinderTry[];
  readonly cylinderD: number;
  readonly foundAt: string;
  readonly foundBy: string;
}
export async function insertGuided(sql: Db, { blur, tries, ...row }: NewGuided): Promise<void> {
  await sql`insert into guided_cylinder ${sql({ ...row, blurAt: [...blur], tries: sql.json(tries as never) })}`;
}
