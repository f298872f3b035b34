/** How a reusable lens is cleaned and disinfected overnight. */
export const CARE_SYSTEMS = ['multipurpose', 'peroxide'] as const;
export type CareSystem = (typeof CARE_SYSTEMS)[number];
