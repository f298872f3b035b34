/** How a request for a copy of a prescription ended: somebody sent it, or said why not. */
export const COPY_REQUEST_ENDS = ['sent', 'refused'] as const;
export type CopyRequestEnd = (typeof COPY_REQUEST_ENDS)[number];

/** What became of an answer that was brought to a seller's own system. */
export const ANSWER_OUTCOMES = ['taken', 'refused'] as const;
export type AnswerOutcome = (typeof ANSWER_OUTCOMES)[number];
