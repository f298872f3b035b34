'use client';
import { CalendarDays, CircleUserRound, Inbox, LibraryBig, ListChecks, LogOut, Package, Settings2, SunMedium, Users } from 'lucide-react';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { callSignOut, openFresh } from './server';
import { useServer } from './ServerProvider';
import { forgetAll } from './drafts';
import { LightsButton } from './Lights';
import { may } from '@/core';

export type RailPlace = 'today' | 'diary' | 'tasks' | 'wearers' | 'staff' | 'library' | 'drawer' | 'orders' | 'settings' | null;

/** The way around: only what is there. */
export function Rail({ place }: { readonly place: RailPlace }) {
  const t = useTranslations('frame');
  const { session } = useServer();
  const items = [
    { id: 'today', href: '/', icon: SunMedium, word: t('today') },
    { id: 'diary', href: '/diary', icon: CalendarDays, word: t('diary') },
    ...(may(session.viewer.roles, 'wearers') ? [{ id: 'tasks', href: '/tasks', icon: ListChecks, word: t('tasks') }] : []),
    { id: 'wearers', href: '/wearers', icon: Users, word: t('wearers') },
    ...(may(session.viewer.roles, 'staff') ? [{ id: 'staff', href: '/staff', icon: CircleUserRound, word: t('staff') }] : []),
    { id: 'library', href: '/library', icon: LibraryBig, word: t('library') },
    { id: 'drawer', href: '/drawer', icon: Inbox, word: t('drawer') },
    ...(may(session.viewer.roles, 'handOver') ? [{ id: 'orders', href: '/orders', icon: Package, word: t('orders') }] : []),
    { id: 'settings', href: '/settings', icon: Settings2, word: t('settings') },
  ] as const;
  const leave = (): void => {
    forgetAll();
    void callSignOut().finally(() => openFresh('/sign-in'));
  };
  return (
    <nav className="rail" aria-label={t('rail')}>
      <svg className="rail-logo mb-3" viewBox="0 0 48 48" width="40" height="40" aria-hidden="true">
        <circle cx="24" cy="22" r="15" fill="none" stroke="var(--ink)" strokeWidth="3.4" />
        <path d="M19 33 16 42" stroke="var(--ink)" strokeWidth="5" />
        <path d="M20 15v14M29 15l-9 8 9 6" fill="none" stroke="var(--ink)" strokeWidth="2.6" />
      </svg>
      {items.map(({ id, href, icon: Icon, word }) => (
        <Link key={id} href={href} prefetch={false} className="rail-item" aria-current={place === id ? 'page' : undefined}>
          <Icon size={22} strokeWidth={1.6} aria-hidden="true" />
          {word}
        </Link>
      ))}
      <div className="rail-gap flex-1" />
      <LightsButton />
      <button type="button" className="rail-item" onClick={leave} title={session.viewer.name}>
        <LogOut size={20} strokeWidth={1.6} aria-hidden="true" />
        {t('signOut', { initials: initials(session.viewer.name) })}
      </button>
    </nav>
  );
}

const initials = (name: string): string =>
  name
    .split(/[\s-]+/)
    .map((part) => part.charAt(0))
    .join('')
    .slice(0, 2);
