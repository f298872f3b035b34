import 'server-only';
import type { Db } from './client';
import type { VisitKind } from '../core';

export interface TodayRow {
  readonly appointmentId: string | null;
  readonly wearerId: string;
  readonly name: string;
  readonly birthDate: string;
  readonly recordNumber: number;
  readonly kind: VisitKind;
  readonly startsAt: string;
  readonly room: string | null;
  readonly staff: string | null;
  readonly state: string;
  readonly visitId: string | null;
  readonly visitOpen: boolean | null;
}

/** Appointments between two instants, with the visit opened for each. */
export async function listToday(sql: Db, practiceId: string, from: string, to: string): Promise<TodayRow[]> {
  return sql<TodayRow[]>`
    select a.id as appointment_id, w.id as wearer_id, i.name, i.birth_date, w.record_number, a.kind, a.starts_at, r.name as room,
      p.display_name as staff, a.state, v.id as visit_id, (v.id is not null and v.closed_at is null) as visit_open
    from appointment a
    join wearer w on w.practice_id = a.practice_id and w.id = a.wearer_id
    join wearer_identity i on i.wearer_id = w.id
    left join room r on r.id = a.room_id
    left join person p on p.id = a.staff_id
    left join lateral (
      select id, closed_at from visit where practice_id = a.practice_id and appointment_id = a.id order by opened_at desc limit 1) v on true
    where a.practice_id = ${practiceId} and a.starts_at >= ${from} and a.starts_at < ${to}
    order by a.starts_at, r.sort_order`;
}

/** @returns false when there is no such appointment of this wearer */
export async function setAppointmentState(
  sql: Db,
  practiceId: string,
  id: string,
  wearerId: string,
  state: 'booked' | 'arrived' | 'done' | 'missed' | 'cancelled',
): Promise<boolean> {
  const rows = await sql`
    update appointment set state = ${state}, version = version + 1
    where practice_id = ${practiceId} and id = ${id} and wearer_id = ${wearerId} returning id`;
  return rows.length === 1;
}

export async function insertAppointment(
  sql: Db,
  a: {
    id: string;
    practiceId: string;
    wearerId: string;
    roomId: string;
    staffId: string;
    kind: VisitKind;
    startsAt: string;
    chairMinutes: number;
    staffMinutes: number;
  },
): Promise<void> {
  await sql`insert into appointment ${sql(a)}`;
}
