import { useTranslations } from 'use-intl';
import { readinessOf, type SetLens } from '@/core';
import { formatTime } from '@/i18n/format';
import { useNow } from './Clock';
import { useServer } from './ServerProvider';

/** How a lens of a set stands, in words and as a state. */
export function useReadyWords(): (lens: SetLens) => {
  readonly state: ReturnType<typeof readinessOf>['state'];
  readonly mark: 'ok' | 'watch' | 'stop';
  readonly words: string;
} {
  const t = useTranslations('setReady');
  const { session } = useServer();
  const now = new Date(useNow(5000)).toISOString();
  return (lens) => {
    const { state, until } = readinessOf(lens, now);
    const mark = state === 'new' || state === 'ready' ? 'ok' : state === 'used' || state === 'ended' ? 'stop' : 'watch';
    return { state, mark, words: t(state, { time: until === null ? '' : formatTime(until, session.practice.timeZone) }) };
  };
}
