import 'server-only';
import type { AppointmentEventKind, AppointmentState, Slot, VisitKind } from '../core';
import type { Db } from './client';

/** An appointment with all that a diary says of it. */
export interface AppointmentRow extends Slot {
  readonly appointmentId: string;
  readonly wearerId: string;
  readonly name: string;
  readonly birthDate: string;
  readonly recordNumber: number;
  readonly telephone: string | null;
  readonly kind: VisitKind;
  readonly room: string | null;
  readonly staff: string | null;
  readonly state: AppointmentState;
  readonly lateMinutes: number;
  readonly note: string | null;
  readonly version: number;
  readonly visitId: string | null;
  readonly visitOpen: boolean;
}

const rows = (sql: Db) => sql`
  select a.id as appointment_id, w.id as wearer_id, i.name, i.birth_date, w.record_number, i.telephone, a.kind, a.starts_at, a.chair_minutes,
    a.staff_minutes, a.room_id, a.staff_id, r.name as room, p.display_name as staff, a.state, a.late_minutes, a.note, a.version,
    v.id as visit_id, (v.id is not null and v.closed_at is null) as visit_open
  from appointment a
  join wearer w on w.practice_id = a.practice_id and w.id = a.wearer_id
  join wearer_identity i on i.wearer_id = w.id
  left join room r on r.id = a.room_id
  left join person p on p.id = a.staff_id
  left join lateral (
    select id, closed_at from visit where practice_id = a.practice_id and appointment_id = a.id order by opened_at desc limit 1) v on true`;

/** Appointments that begin between two instants, with the visit opened for each. */
export function listAppointments(sql: Db, practiceId: string, from: string, to: string) {
  return sql<AppointmentRow[]>`
    ${rows(sql)} where a.practice_id = ${practiceId} and a.starts_at >= ${from} and a.starts_at < ${to}
    order by a.starts_at, r.sort_order, i.name, a.id`;
}

/** A wearer's appointments from an instant on, soonest first. */
export function listAppointmentsOf(sql: Db, practiceId: string, wearerId: string, from: string) {
  return sql<AppointmentRow[]>`
    ${rows(sql)} where a.practice_id = ${practiceId} and a.wearer_id = ${wearerId} and a.starts_at >= ${from} order by a.starts_at limit 6`;
}

/** An appointment as it is changed. */
export interface Appointment extends Slot {
  readonly id: string;
  readonly practiceId: string;
  readonly wearerId: string;
  readonly kind: VisitKind;
  readonly state: AppointmentState;
  readonly lateMinutes: number;
  readonly version: number;
}
const columns = (sql: Db) => sql`id, practice_id, wearer_id, kind, state, late_minutes, version, room_id, staff_id, starts_at, chair_minutes, staff_minutes`;

/** Held to the end of the transaction. */
export async function lockAppointment(sql: Db, practiceId: string, id: string): Promise<Appointment | null> {
  const [row] = await sql<Appointment[]>`select ${columns(sql)} from appointment where practice_id = ${practiceId} and id = ${id} for update`;
  return row ?? null;
}

/** The appointment for which a visit was opened, held to the end of the transaction; null when it was opened without one. */
export async function lockAppointmentOfVisit(sql: Db, practiceId: string, visitId: string): Promise<Appointment | null> {
  const [row] = await sql<Appointment[]>`
    select ${columns(sql)} from appointment
    where practice_id = ${practiceId} and id = (select appointment_id from visit where practice_id = ${practiceId} and id = ${visitId}) for update`;
  return row ?? null;
}

/** Appointments that take place and hold a room or a person at some time between two instants. */
export function listTaken(sql: Db, practiceId: string, from: string, to: string) {
  return sql<(Appointment & { readonly name: string })[]>`
    select a.id, a.practice_id, a.wearer_id, a.kind, a.state, a.late_minutes, a.version, a.room_id, a.staff_id, a.starts_at, a.chair_minutes,
      a.staff_minutes, i.name
    from appointment a join wearer_identity i on i.wearer_id = a.wearer_id
    where a.practice_id = ${practiceId} and a.state not in ('cancelled', 'missed')
      and a.starts_at > ${from}::timestamptz - interval '8 hours' and a.starts_at < ${to}
    order by a.starts_at, a.id`;
}

/** One change of a practice's diary at a time, so that two people never take the same place. */
export async function holdDiary(sql: Db, practiceId: string): Promise<void> {
  await sql`select pg_advisory_xact_lock(hashtextextended(${`${practiceId}|diary`}, 0))`;
}

/** What happened to an appointment, with what it is after it. */
export interface AppointmentEvent {
  readonly kind: AppointmentEventKind;
  readonly reason: string | null;
  readonly at: string;
  readonly by: string | null;
}

async function insertEvent(sql: Db, a: Appointment, event: AppointmentEvent): Promise<void> {
  await sql`insert into appointment_event ${sql({
    practiceId: a.practiceId,
    appointmentId: a.id,
    ...event,
    startsAt: a.startsAt,
    roomId: a.roomId,
    staffId: a.staffId,
    chairMinutes: a.chairMinutes,
    staffMinutes: a.staffMinutes,
    state: a.state,
    lateMinutes: a.lateMinutes,
  })}`;
}

export async function insertAppointment(
  sql: Db,
  a: Omit<Appointment, 'state' | 'lateMinutes' | 'version'> & { readonly note: string | null },
  event: Omit<AppointmentEvent, 'kind'>,
): Promise<void> {
  await sql`insert into appointment ${sql({ ...a })}`;
  await insertEvent(sql, { ...a, state: 'booked', lateMinutes: 0, version: 1 }, { ...event, kind: 'booked' });
}

/** Makes an appointment, held by `lockAppointment`, what it is now, and keeps that in its story. */
export async function changeAppointment(sql: Db, a: Appointment, event: AppointmentEvent): Promise<void> {
  const { startsAt, roomId, staffId, chairMinutes, staffMinutes, state, lateMinutes } = a;
  await sql`
    update appointment set ${sql({ startsAt, roomId, staffId, chairMinutes, staffMinutes, state, lateMinutes })}, version = version + 1
    where practice_id = ${a.practiceId} and id = ${a.id}`;
  await insertEvent(sql, a, event);
}

export interface AppointmentEventRow extends Slot {
  readonly kind: AppointmentEventKind;
  readonly state: AppointmentState;
  readonly lateMinutes: number;
  readonly reason: string | null;
  readonly at: string;
  readonly byName: string | null;
  readonly room: string | null;
  readonly staff: string | null;
}

/** What happened to an appointment, newest first. */
export function listAppointmentEvents(sql: Db, practiceId: string, id: string) {
  return sql<AppointmentEventRow[]>`
    select e.kind, e.state, e.late_minutes, e.reason, e.at, e.starts_at, e.room_id, e.staff_id, e.chair_minutes, e.staff_minutes,
      b.display_name as by_name, r.name as room, p.display_name as staff
    from appointment_event e
    left join person b on b.id = e.by left join room r on r.id = e.room_id left join person p on p.id = e.staff_id
    where e.practice_id = ${practiceId} and e.appointment_id = ${id} order by e.sequence desc limit 50`;
}
