/** Seconds since an instant, as the page's clock goes. @param moment ms */
export const secondsSince = (instant: string, moment: number): number => (moment - Date.parse(instant)) / 1000;
