import type { FirstDay } from '../aftercare/followThrough';
import type { Eye, IsoDate, IsoInstant } from '../units';
import type { VisitKind } from './visitSteps';

/** How a wearer wants to be written to. */
export const CONTACT_WAYS = ['text', 'mail', 'none'] as const;
export type ContactWay = (typeof CONTACT_WAYS)[number];
export interface ContactChoice {
  readonly way: ContactWay;
  readonly recipient: string | null;
  readonly chosenAt: IsoInstant;
  readonly recordedByName: string;
}

/** What a message is about, and what its words are made from. */
export type MessageData =
  | { readonly kind: 'reorderDue'; readonly runOut: IsoDate; readonly eyes: readonly Eye[] }
  | { readonly kind: 'boxesHere'; readonly order: number }
  | { readonly kind: 'appointment'; readonly appointmentId: string; readonly startsAt: IsoInstant; readonly minutes: number; readonly visit: VisitKind }
  | { readonly kind: 'parcelAsked'; readonly order: number }
  | { readonly kind: 'lotRecalled'; readonly lot: string }
  | { readonly kind: 'firstDays'; readonly day: FirstDay };
export const MESSAGE_KINDS = [
  'reorderDue',
  'boxesHere',
  'appointment',
  'parcelAsked',
  'lotRecalled',
  'firstDays',
] as const satisfies readonly MessageData['kind'][];
export type MessageKind = (typeof MESSAGE_KINDS)[number];

/** A message that waits for somebody to send it. */
export interface OutboxMessage {
  readonly id: string;
  readonly wearerId: string;
  readonly wearerName: string;
  readonly data: MessageData;
  readonly language: string;
  readonly way: 'mail' | 'text';
  readonly recipient: string;
  readonly writtenAt: IsoInstant;
  /** Not before: hours in which nobody is written to are kept. */
  readonly dueAt: IsoInstant;
  readonly doneAt: IsoInstant | null;
  readonly outcome: 'sent' | 'refused' | 'notSent' | null;
  readonly doneByName: string | null;
}
