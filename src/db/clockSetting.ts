import 'server-only';
import type { Db } from './client';

export interface ClockSetting {
  readonly frozenAt: string | null;
  readonly offsetSeconds: number;
}

export async function findClockSetting(sql: Db): Promise<ClockSetting> {
  const [row] = await sql<ClockSetting[]>`select frozen_at, offset_seconds from app_clock`;
  return row ?? { frozenAt: null, offsetSeconds: 0 };
}

export async function setClockSetting(sql: Db, setting: ClockSetting): Promise<void> {
  await sql`update app_clock set frozen_at = ${setting.frozenAt}, offset_seconds = ${setting.offsetSeconds}`;
}
