import type { Eye } from '../units';

export interface LessonRow {
  readonly id: string;
  readonly visitId: string;
  readonly wearerId: string;
  readonly eyes: Eye[];
  readonly onAtStart: Eye[];
  readonly singleUse: boolean;
  readonly handler: string | null;
  readonly startedAt: string;
  readonly signOffId: string | null;
  readonly signedAt: string | null;
  readonly signedByName: string | null;
}
