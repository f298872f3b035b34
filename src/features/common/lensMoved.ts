/** Something was put on an eye or taken off it: the settle clocks are asked for at once. */
export const LENS_MOVED = 'keenfit-lens-moved';
