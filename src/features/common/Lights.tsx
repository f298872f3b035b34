'use client';
import { useKey } from './keys';
import { useTranslations } from 'use-intl';
import { useSyncExternalStore } from 'react';
import { Lamp } from 'lucide-react';
import { useServer } from './ServerProvider';

const YEAR = 365 * 24 * 3600;
const cookie = (name: string): string | null =>
  document.cookie
    .split('; ')
    .find((c) => c.startsWith(`${name}=`))
    ?.slice(name.length + 1) ?? null;
const setCookie = (name: string, value: string): void => {
  document.cookie = `${name}=${value}; path=/; max-age=${YEAR}; samesite=strict`;
};

const listeners = new Set<() => void>();
const subscribe = (listener: () => void): (() => void) => {
  listeners.add(listener);
  return () => listeners.delete(listener);
};
const current = (): string => document.documentElement.dataset.lights ?? 'up';

/** Lights down for the slit lamp: a choice of this device in its room, kept in a cookie and with the practice. */
export function LightsButton() {
  const t = useTranslations('frame');
  const { quietly } = useServer();
  const lights = useSyncExternalStore(subscribe, current, () => 'up');
  const toggle = (): void => {
    const next = current() === 'down' ? 'up' : 'down';
    document.documentElement.dataset.lights = next;
    setCookie('keenfit-lights', next);
    const device = cookie('keenfit-device') ?? crypto.randomUUID();
    setCookie('keenfit-device', device);
    for (const listener of listeners) listener();
    void quietly('setLights', { deviceId: device, lights: next });
  };
  useKey('d', toggle);
  return (
    <button type="button" className="rail-item" onClick={toggle} aria-pressed={lights === 'down'} aria-keyshortcuts="d">
      <Lamp size={22} strokeWidth={1.6} aria-hidden="true" />
      {lights === 'down' ? t('lightsUp') : t('lightsDown')}
    </button>
  );
}
