/** The one moment at which tests and pictures take place: Tuesday 24 November 2026, 10:00 in the demo practice. */
export const TEST_NOW = '2026-11-24T15:00:00Z';
export const TEST_TODAY = '2026-11-24';
