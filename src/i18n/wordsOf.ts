import { useMemo } from 'react';
import { useTranslations, type NamespaceKeys, type NestedKeyOf } from 'use-intl';
import type { en } from './messages/en';

type Namespace = NamespaceKeys<typeof en, NestedKeyOf<typeof en>>;
type Values = Readonly<Record<string, string | number>>;
interface AnyWords {
  (key: string, values?: Values): string;
  readonly has: (key: string) => boolean;
}

/** The one place where a key is not checked by its type. */
function useAnyWords(namespace: Namespace): AnyWords {
  const words: unknown = useTranslations(namespace);
  return words as AnyWords;
}

/**
 * Words for keys that come from data (a rule, a sign, an answer of a record), where the type cannot tell which there are: tests
 * hold every list of core to its words. What has none stands there as its key.
 */
export const useWordsOf = (namespace: Namespace): ((key: string, values?: Values) => string) => useAnyWords(namespace);

/** The same, for keys that a page may not have brought: asked for first. */
export function useKnownWords(namespace: Namespace): { readonly has: (key: string) => boolean; readonly of: (key: string, values?: Values) => string } {
  const words = useAnyWords(namespace);
  return useMemo(() => ({ has: (key) => words.has(key), of: (key, values) => words(key, values) }), [words]);
}
