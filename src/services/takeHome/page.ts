import 'server-only';
import { dayIn, takeHomePage, USUAL_WAY, wearDecided, type VisitKind, type VisitRow } from '../../core';
import { listAppointmentsOf } from '../../db/appointment';
import { listCarePairs } from '../../db/carePair';
import { listCareProducts } from '../../db/careProduct';
import type { Context } from '../define';
import { namedLenses } from '../visit/lenses';
import { readingOf } from '../visit/reading';

/** Visits at which lenses are looked at on the eye. */
const LOOKED_AT: readonly VisitKind[] = ['shortFollowUp', 'longFollowUp', 'lensAnnual', 'fullAnnual', 'refit'];

/** The page of a visit as its record stands now, or what it cannot be without. */
export async function pageOf(context: Context, visit: VisitRow) {
  const { tx, caller, practice, settings, now } = context;
  const reading = readingOf(context, visit);
  const supply = await reading.supply();
  const health = await reading.health();
  const { name, birthDate, recordNumber } = await reading.wearer();
  const lensIds = supply.handOvers.flatMap((c) => (c.current ? [c.current.lensId] : []));
  const way = supply.lessonWays.flatMap((c) => (c.current ? [c.current] : [])).at(-1) ?? USUAL_WAY;
  const coming = (await listAppointmentsOf(tx, caller.practiceId, visit.wearerId, now)).find((a) => a.state === 'booked' && LOOKED_AT.includes(a.kind));
  const { timeZone } = practice;
  const named = await namedLenses(context, lensIds);
  return takeHomePage({
    visitId: visit.id,
    wearer: { name, birthDate, recordNumber },
    practice: {
      ...{ name: practice.name, address: practice.address, telephone: practice.telephone, timeZone },
      emergencyTelephone: practice.emergencyTelephone,
    },
    settings,
    handOvers: supply.handOvers,
    lenses: named.lenses,
    materials: named.ofLenses,
    carePairs: await listCarePairs(tx, caller.practiceId),
    careSystems: supply.careSystems,
    lessonInstructions: supply.lessonInstructions,
    careProducts: await listCareProducts(tx, caller.practiceId),
    lessons: supply.lessons,
    topics: supply.topics,
    answers: health.answers,
    wear: wearDecided({ visitId: visit.id, health }) ?? health.wearBefore,
    coming: coming ? { startsAt: coming.startsAt, minutes: coming.chairMinutes } : null,
    drawn: { hand: way.hand, skinTone: way.skinTone },
    dayOf: (at) => dayIn(at, timeZone),
  });
}
