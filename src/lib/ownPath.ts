const HERE = 'http://here.invalid';

/**
 * A path of ours to go back to, or the first page: never an address elsewhere, however it is written. It is read as a browser
 * reads it, which drops tabs and line ends and takes a backslash for a slash.
 */
export function ownPath(to: unknown): string {
  if (typeof to !== 'string' || !to.startsWith('/') || !URL.canParse(to, HERE)) return '/';
  const { origin, pathname, search, hash } = new URL(to, HERE);
  return origin === HERE && !pathname.startsWith('//') ? `${pathname}${search}${hash}` : '/';
}
