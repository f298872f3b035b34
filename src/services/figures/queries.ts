import 'server-only';
import { addYears, type ForecastFigures, type IsoDate, type IsoInstant } from '../../core';
import { countRemakes, listFirstLens, listPunctuality, listStretching, listTurns } from '../../db/figures';
import { countMisses, countTechniques, minutesToSignOff } from '../../db/lessonFigures';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { forecastsOf } from './forecasts';
import { sessionContextOf, type SessionContext } from '../sessionContext';

/** From when on figures are counted. */
const aYearBefore = (today: IsoDate): IsoInstant => `${addYears(today, -1)}T00:00:00Z`;

/** What the practice's own work says. */
export interface FiguresPage {
  readonly session: SessionContext;
  readonly punctuality: Awaited<ReturnType<typeof listPunctuality>>;
  readonly stretching: Awaited<ReturnType<typeof listStretching>>;
  readonly remakes: Awaited<ReturnType<typeof countRemakes>>;
  readonly firstLens: Awaited<ReturnType<typeof listFirstLens>>;
  readonly turns: Awaited<ReturnType<typeof listTurns>>;
  readonly forecasts: ForecastFigures;
}

export const readFigures = defineQuery({
  name: 'readFigures',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<FiguresPage>> => {
    const { tx, caller, today, practice } = context;
    const since = aYearBefore(today);
    return ok({
      session: sessionContextOf(context),
      punctuality: await listPunctuality(tx, caller.practiceId, since, practice.timeZone),
      stretching: await listStretching(tx, caller.practiceId),
      remakes: await countRemakes(tx, caller.practiceId, since),
      firstLens: await listFirstLens(tx, caller.practiceId, since),
      turns: await listTurns(tx, caller.practiceId),
      forecasts: await forecastsOf(tx, caller.practiceId, since),
    });
  },
});

/** What the practice's lessons say of a year. */
export interface LessonFiguresPage {
  readonly session: SessionContext;
  readonly minutes: Awaited<ReturnType<typeof minutesToSignOff>>;
  readonly misses: Awaited<ReturnType<typeof countMisses>>;
  readonly techniques: Awaited<ReturnType<typeof countTechniques>>;
}

export const readLessonFigures = defineQuery({
  name: 'readLessonFigures',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<LessonFiguresPage>> => {
    const { tx, caller, today } = context;
    const since = aYearBefore(today);
    return ok({
      session: sessionContextOf(context),
      minutes: await minutesToSignOff(tx, caller.practiceId, since),
      misses: await countMisses(tx, caller.practiceId, since),
      techniques: await countTechniques(tx, caller.practiceId, since),
    });
  },
});
