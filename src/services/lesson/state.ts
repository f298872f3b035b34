import 'server-only';
import { labelOf, lessonFile, lessonState, type LessonState, type VisitRow } from '../../core';
import { listCareProducts } from '../../db/careProduct';
import { notFound, ok, ruleBroken, type Result } from '../../lib/outcome';
import type { Context } from '../define';
import { namedLenses } from '../visit/lenses';
import { readingOf } from '../visit/reading';

/** A lesson that is not signed off, as it stands. */
export async function lessonOf(context: Context, visit: VisitRow, lessonId: string): Promise<Result<LessonState>> {
  const reading = readingOf(context, visit);
  const supply = await reading.supply();
  const lesson = supply.lessons.find((l) => l.id === lessonId);
  if (!lesson) return notFound('lesson');
  if (lesson.signOffId !== null) return ruleBroken('lessonSignedOff');
  const { onEye } = await reading.facts();
  const { prescriptions } = supply;
  const ids = [...onEye.flatMap((c) => c.current?.lensId ?? []), ...prescriptions.flatMap((p) => p.eyes.flatMap((e) => e.lensId ?? []))];
  const { lenses } = await namedLenses(context, ids);
  const file = lessonFile({
    label: labelOf({ onEye, prescriptions, lenses }),
    visitId: visit.id,
    supply,
    health: await reading.health(),
    findings: (await reading.state()).findings,
    careProducts: await listCareProducts(context.tx, context.caller.practiceId),
    settings: context.settings,
  });
  return ok(lessonState(lesson, file, { today: context.today, timeZone: context.practice.timeZone, at: context.now }));
}
