/**
 * Keeps what is made for a key. A format of a time zone or a currency costs more to make than a hundred uses of it.
 * @param make makes it the first time a key is asked for; keys are few and known, none is ever dropped
 */
export function memoize<Made>(make: (key: string) => Made): (key: string) => Made {
  const kept = new Map<string, Made>();
  return (key) => {
    const made = kept.get(key) ?? make(key);
    kept.set(key, made);
    return made;
  };
}
