import 'server-only';

export interface Meta {
  readonly id: string;
  readonly practiceId: string;
  readonly visitId: string;
  readonly visitVersion: number;
  readonly at: string;
  readonly by: string;
}
