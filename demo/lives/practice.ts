import { addSeconds, dayIn, formatMinuteOfDay, USUAL_MINUTES, type FreeSlot, type IsoDate, type IsoInstant, type VisitKind } from '../../src/core';
import type { Sql } from '../../src/db/client';
import { listFamilies, type FamilyWithBlocks } from '../../src/db/family';
import { findPractice } from '../../src/db/practice';
import { listRooms } from '../../src/db/room';
import { clockOf, momentOf } from '../../src/services/appointment/moments';
import type { Deps, StaffCaller } from '../../src/services/define';
import { SERVICES, type ServiceName } from '../../src/services';
import { perform } from '../../src/services/perform';
import { must } from '../../src/lib/assert';

/** What a use case answers, by the names of its parts. */
export type Answer = Readonly<Record<string, unknown>>;
export type Account = 'asha' | 'teo' | 'joss' | 'renny' | 'merle';
/** A place in the diary, of a wearer. */
export interface Booked {
  readonly kind: VisitKind;
  readonly appointmentId: string;
  readonly startsAt: IsoInstant;
}

/** When, and with whom, somebody would like to come. */
export interface Wish {
  readonly with: Account;
  readonly from: IsoDate;
  readonly time: string;
}

/** A use case was refused: what the made-up practice tried is against the rules. */
export class Refused extends Error {}

/**
 * The practice as its staff use it: every entry through the use cases, with their checks, at the moment that the clock shows.
 */
export class Practice {
  now: IsoInstant;
  readonly deps: Deps;
  private readonly staff = new Map<string, StaffCaller>();
  private families: readonly FamilyWithBlocks[] = [];

  private constructor(
    readonly sql: Sql,
    readonly id: string,
    readonly timeZone: string,
    since: IsoInstant,
  ) {
    this.now = since;
    this.deps = { sql, side: sql, clock: { now: () => Promise.resolve(this.now) }, mode: 'demo' };
  }

  static async open(sql: Sql, practiceId: string, since: IsoInstant): Promise<Practice> {
    const { timeZone } = must(await findPractice(sql, practiceId), 'practice');
    const practice = new Practice(sql, practiceId, timeZone, since);
    const people = await sql<Omit<StaffCaller, 'kind'>[]>`
      select m.practice_id, m.person_id, p.display_name as name, m.title, p.account, m.roles, m.register_number
      from membership m join person p on p.id = m.person_id where m.practice_id = ${practiceId}`;
    for (const person of people) practice.staff.set(person.account, { ...person, kind: 'staff' });
    practice.families = await listFamilies(sql, practiceId, practice.today);
    return practice;
  }

  get today(): IsoDate {
    return dayIn(this.now, this.timeZone);
  }

  family(code: string): FamilyWithBlocks {
    return must(
      this.families.find((f) => f.code === code),
      code,
    );
  }

  /** Time that goes by within a visit, s. */
  pass(seconds: number): void {
    this.now = addSeconds(this.now, seconds);
  }

  /** What the practice's clock showed some hours ago. */
  clockBefore(hours: number): string {
    return formatMinuteOfDay(clockOf(addSeconds(this.now, -hours * 3600), this.timeZone).minute);
  }

  /** Has a use case done by one of the staff. @throws Refused */
  async does(account: Account, name: ServiceName, input: object): Promise<Answer> {
    const caller = must(this.staff.get(account), account);
    const done = await perform<never, Answer, never>(SERVICES[name] as never, this.deps, caller, input);
    if (!done.ok) throw new Refused(`${account} ${name}: ${JSON.stringify(done.error)}`);
    return done.value;
  }

  /** Books at the hour that somebody asks for, at the front desk; where that is not to be had, the first free time from that day on. */
  async books(wearerId: string, kind: VisitKind, wish: Wish): Promise<Booked> {
    const { chair, staff } = USUAL_MINUTES[kind];
    const wanted = { wearerId, kind, chairMinutes: chair, staffMinutes: staff };
    const staffId = must(this.staff.get(wish.with), wish.with).personId;
    const rooms = (await listRooms(this.sql, this.id)).map((room) => room.id);
    const roomId = must(wish.with === 'asha' ? rooms[1] : rooms[0], 'room');
    const asked = { ...wanted, roomId, staffId, note: '', day: wish.from, time: wish.time, despite: '' };
    try {
      const made = await this.does('renny', 'bookAppointment', asked);
      return { kind, appointmentId: String(made['appointmentId']), startsAt: momentOf(wish.from, minuteOfDay(wish.time), this.timeZone) };
    } catch (cause) {
      if (!(cause instanceof Refused)) throw cause;
    }
    const found = (await this.does('renny', 'findFree', { ...wanted, from: wish.from, roomId: null, staffId })) as unknown as readonly FreeSlot[];
    const free = must(found[0], 'a free time');
    const { day, minute } = clockOf(free.startsAt, this.timeZone);
    const made = await this.does('renny', 'bookAppointment', { ...asked, day, time: formatMinuteOfDay(minute), roomId: free.roomId, staffId });
    return { kind, appointmentId: String(made['appointmentId']), startsAt: free.startsAt };
  }
}

const minuteOfDay = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3));
