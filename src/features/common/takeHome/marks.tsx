/** Marks of the page, drawn: no font is asked for them. */

/** Stop. */
export const Octagon = () => (
  <svg className="home-mark home-stop" viewBox="0 0 20 20" aria-hidden="true">
    <path d="M6.2 1h7.6L19 6.2v7.6L13.8 19H6.2L1 13.8V6.2Z" fill="currentColor" />
    <path d="M5.5 10h9" stroke="#fff" strokeWidth="3" />
  </svg>
);

/** Right. */
export const Tick = () => (
  <svg className="home-mark home-fine" viewBox="0 0 20 20" aria-hidden="true">
    <path d="M2.5 10.5 8 16 18 4" fill="none" stroke="currentColor" strokeWidth="3" />
  </svg>
);
