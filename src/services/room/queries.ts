import 'server-only';
import type { PracticeHours } from '../../core';
import { findHours } from '../../db/openingHours';
import { listRooms, type RoomRow } from '../../db/room';
import { ok, type Result } from '../../lib/outcome';
import { emptyForm } from '../../schema/fields';
import { defineQuery } from '../define';
import { sessionContextOf, type SessionContext } from '../sessionContext';

export interface RoomsPage {
  readonly session: SessionContext;
  /** Of what the practice is called and where it is reached. */
  readonly practiceVersion: number;
  readonly rooms: readonly RoomRow[];
  /** The week, and the days from today on of which something was said. */
  readonly hours: PracticeHours;
}

export const readRooms = defineQuery({
  name: 'readRooms',
  right: 'read',
  input: emptyForm,
  about: () => null,
  run: async (context): Promise<Result<RoomsPage>> =>
    ok({
      session: sessionContextOf(context),
      practiceVersion: context.practice.version,
      rooms: await listRooms(context.tx, context.caller.practiceId),
      hours: await findHours(context.tx, context.caller.practiceId, context.today),
    }),
});
