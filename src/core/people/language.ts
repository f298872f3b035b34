/**
 * The language something is written in for somebody: the first wish that is known, its region aside; else the first known.
 * @param wishes BCP 47 tags, most wanted first; null where nobody has said
 * @param known languages there are words for, the practice's own first
 * @example languageFor(['es-MX', 'en-US'], ['en', 'es']) → 'es'
 */
export function languageFor<Known extends string>(wishes: readonly (string | null)[], known: readonly [Known, ...Known[]]): Known {
  const base = (tag: string): string => tag.toLowerCase().split(/[-_]/)[0] ?? '';
  for (const wish of wishes) {
    if (wish === null) continue;
    const found = known.find((k) => k.toLowerCase() === wish.toLowerCase()) ?? known.find((k) => base(k) === base(wish));
    if (found !== undefined) return found;
  }
  return known[0];
}
