'use client';
import { Bell, BellOff } from 'lucide-react';
import Link from 'next/link';
import { useCallback, useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import { formatElapsed } from '@/i18n/format';
import settleWords from '@/i18n/messages/en/settle.messages.json';
import { withWords } from '@/i18n/withWords';
import type { SettlingRow } from '@/db/lensOnEye';
import { StateMark } from '@/ui/marks';
import { useNow } from './Clock';
import { useServer } from './ServerProvider';
import { useDeviceChoice } from './deviceChoice';
import { useNews } from './news';
import { secondsSince } from './elapsed';
import { LENS_MOVED } from './lensMoved';
import { softTone } from './softTone';

/** How often other rooms' clocks are asked for, ms. */
const ASKED_EVERY = 15_000;

const leftOf = (clock: SettlingRow, moment: number): number => clock.settleMinutes * 60 - secondsSince(clock.putOnAt, moment);

/** The settle clocks of the practice, on every signed-in page; a soft sound at the end where this device asks for it. */
function Clocks() {
  const t = useTranslations('settle');
  const eyes = useTranslations('eyes');
  const { poll, session } = useServer();
  const mayRead = may(session.viewer.roles, 'clinicalRead');
  const moment = useNow();
  const [clocks, setClocks] = useState<readonly SettlingRow[]>([]);
  const [sound, setSound] = useDeviceChoice('sound');
  const waited = useRef(new Set<string>());
  const [said, setSaid] = useState('');
  const ask = useCallback(async () => {
    if (!mayRead) return;
    const found = await poll('readSettling', {});
    if (found?.ok) setClocks(found.value.clocks);
  }, [mayRead, poll]);
  useNews((what) => {
    if (what === 'look' || what.what === 'visit') void ask();
  });
  useEffect(() => {
    const soon = (): void => void ask();
    const first = setTimeout(soon, 0);
    const timer = setInterval(soon, ASKED_EVERY);
    window.addEventListener(LENS_MOVED, soon);
    return () => {
      clearTimeout(first);
      clearInterval(timer);
      window.removeEventListener(LENS_MOVED, soon);
    };
  }, [ask]);
  useEffect(() => {
    for (const clock of clocks) {
      if (leftOf(clock, moment) > 0) waited.current.add(clock.lensOnEyeId);
      else if (waited.current.delete(clock.lensOnEyeId)) {
        setSaid(t('said', { wearer: clock.wearerName, eye: eyes(`${clock.eye}.name`) }));
        if (sound === 'on') softTone();
      }
    }
  }, [clocks, moment, sound, t, eyes]);
  if (clocks.length === 0) return null;
  // Both eyes of a visit that were put on together are one line.
  const lines = new Map<string, SettlingRow[]>();
  for (const clock of clocks) {
    const key = `${clock.visitId}|${clock.putOnAt}|${clock.familyName}`;
    lines.set(key, [...(lines.get(key) ?? []), clock]);
  }
  return (
    <div className="settle" role="group" aria-label={t('label')}>
      {[...lines.entries()].slice(-3).map(([key, group]) => {
        const [clock] = group;
        if (!clock) return null;
        const left = leftOf(clock, moment);
        const total = clock.settleMinutes * 60;
        const share = Math.min(1, Math.max(0, 1 - left / total));
        return (
          <Link key={key} href={`/visits/${clock.visitId}/on-eye`} prefetch={false} className="settle-clock" data-testid={`settle-${clock.eye}`}>
            <span className="truncate">
              {t('clock', { wearer: clock.wearerName, eye: group.map((g) => eyes(`${g.eye}.short`)).join(' '), family: clock.familyName })}
            </span>
            <span className="settle-bar" aria-hidden="true">
              <span style={{ width: `${share * 100}%` }} />
            </span>
            <span className="settle-left">
              {left > 0 ? (
                t('left', { time: formatElapsed(left) })
              ) : (
                <>
                  <StateMark state="ok" /> {t('done')}
                </>
              )}
            </span>
          </Link>
        );
      })}
      <button
        type="button"
        className="settle-sound"
        aria-pressed={sound === 'on'}
        aria-label={sound === 'on' ? t('soundOn') : t('soundOff')}
        onClick={() => setSound(sound === 'on' ? 'off' : 'on')}
      >
        {sound === 'on' ? <Bell size={18} aria-hidden="true" /> : <BellOff size={18} aria-hidden="true" />}
      </button>
      <span className="sr-only" role="status">
        {said}
      </span>
    </div>
  );
}

export const SettleClocks = withWords({ settle: settleWords }, Clocks);
