/** What a wearer's link opens: one lesson, or one page to take home. */
export const LINK_PURPOSES = ['lesson', 'takeHome'] as const;
export type LinkPurpose = (typeof LINK_PURPOSES)[number];

/** A link holds so many days: a lesson is repeated for some weeks, a paper for as long as a prescription may hold. Own choice. */
export const LINK_DAYS: Readonly<Record<LinkPurpose, number>> = { lesson: 28, takeHome: 366 };
