import 'server-only';
import { ageOn, chains, type WearerFile } from '../../core';
import { listAppointmentsOf } from '../../db/appointment';
import { listBroughtAlong } from '../../db/broughtAlong';
import { bundle } from '../../db/bundle';
import { erasureRow } from '../../db/erasure';
import { newestExaminedElsewhere, newestVisitOf } from '../../db/examined';
import { listLosses } from '../../db/lensLoss';
import { asOrders, orderParts } from '../../db/order';
import { newestContact } from '../../db/outbox';
import { asPrescriptions, countPrescriptions, prescriptionParts } from '../../db/prescription';
import { listSellerVerified } from '../../db/request';
import { alertSince, stoppedSince } from '../../db/stop';
import { listTasksOf } from '../../db/task';
import { listVisitsPage, type VisitKey } from '../../db/visit';
import { listNewestTrials, listSupplyBefore, supplyBefore } from '../../db/visitPast';
import { listIdentityChanges, wearerRow } from '../../db/wearer';
import { boundsOf } from '../appointment/moments';
import type { Context } from '../define';
import { namedLenses } from '../visit/lenses';

/** Of each kind what is newest; the visits come by pages. */
const MOST = { prescriptions: 6, orders: 6, handOvers: 6, visits: 20, identityChanges: 20 } as const;

/**
 * A wearer's file, or null when the practice has no such wearer.
 * @param after the last visit of the page before
 */
export async function readWearerFile(context: Context, wearerId: string, after: VisitKey | null): Promise<WearerFile | null> {
  const { tx, caller, today, practice } = context;
  const { practiceId } = caller;
  const scope = { practiceId, wearerId, id: null };
  const rows = await bundle(tx, {
    wearers: wearerRow(tx, practiceId, wearerId),
    visits: listVisitsPage(tx, practiceId, wearerId, after, MOST.visits + 1),
    ...prescriptionParts(tx, practiceId, wearerId, { most: MOST.prescriptions, visitId: null }),
    ...orderParts(tx, practiceId, wearerId, { most: MOST.orders, visitId: null }),
    counted: countPrescriptions(tx, practiceId, wearerId),
    supply: listSupplyBefore(tx, scope, MOST.handOvers),
    trials: listNewestTrials(tx, scope),
    identityChanges: listIdentityChanges(tx, practiceId, wearerId, MOST.identityChanges),
    appointments: listAppointmentsOf(tx, practiceId, wearerId, boundsOf(today, practice.timeZone).from),
    tasks: listTasksOf(tx, practiceId, wearerId),
    broughtAlong: listBroughtAlong(tx, practiceId, wearerId),
    sellerVerified: listSellerVerified(tx, practiceId, wearerId),
    losses: listLosses(tx, practiceId, [wearerId]),
    contacts: newestContact(tx, practiceId, wearerId),
    erasure: erasureRow(tx, practiceId, wearerId),
    stops: stoppedSince(tx, practiceId, wearerId),
    alerts: alertSince(tx, practiceId, wearerId),
    newestOf: newestVisitOf(tx, practiceId, wearerId, null),
    examined: newestExaminedElsewhere(tx, practiceId, wearerId),
  });
  const [wearer] = rows.wearers;
  if (!wearer) return null;
  const { handOver, wornAnswer } = supplyBefore(rows.supply);
  const file = {
    wearer: { ...wearer, age: ageOn(wearer.birthDate, today) },
    erasure: rows.erasure[0] ?? null,
    stoppedSince: rows.stops[0]?.sinceAt ?? null,
    alertSince: rows.alerts[0]?.sinceAt ?? null,
    visits: rows.visits.slice(0, MOST.visits),
    moreVisits: rows.visits.length > MOST.visits,
    newestOf: Object.fromEntries(rows.newestOf.map((v) => [v.kind, v.openedAt])),
    examinedElsewhere: rows.examined[0] ?? null,
    prescriptions: asPrescriptions(rows),
    prescriptionCount: rows.counted[0]?.count ?? 0,
    orders: asOrders(rows),
    handOvers: chains(handOver),
    wornAnswers: chains(wornAnswer),
    onEye: rows.trials.map((row) => ({ rootId: row.rootId, rows: [row], current: row })),
    identityChanges: rows.identityChanges,
    broughtAlong: rows.broughtAlong,
    sellerVerified: rows.sellerVerified,
    losses: rows.losses,
    appointments: rows.appointments.map(({ appointmentId, startsAt, kind, state, room, staff }) => ({ appointmentId, startsAt, kind, state, room, staff })),
    contact: rows.contacts[0] ?? null,
    tasks: rows.tasks.map(({ id, kind, text, because, dueOn }) => ({ id, kind, text, because, dueOn })),
  };
  const ids = [
    ...file.onEye.map((c) => c.current.lensId),
    ...file.prescriptions.flatMap((p) => p.eyes.map((e) => e.lensId)),
    ...file.handOvers.flatMap((c) => c.rows.map((r) => r.lensId)),
    ...file.broughtAlong.map((b) => b.lensId),
    ...file.sellerVerified.map((v) => v.lensId),
    ...file.wornAnswers.flatMap((c) => c.rows.map((r) => r.lensId)),
    ...file.orders.flatMap((o) => [...o.lines, ...o.receipts].map((l) => l.lensId)),
  ];
  const { lenses } = await namedLenses(
    context,
    ids.flatMap((id) => id ?? []),
  );
  return { ...file, lenses };
}
