'use client';
import Link from 'next/link';
import { useTranslations } from 'use-intl';
import { may } from '@/core';
import deskWords from '@/i18n/messages/en/desk.messages.json';
import { withWords } from '@/i18n/withWords';
import { useServer } from './ServerProvider';

const TABS = [
  { id: 'due', href: '/reorders', right: 'orders' },
  { id: 'orders', href: '/orders', right: 'handOver' },
  { id: 'outbox', href: '/outbox', right: 'orders' },
  { id: 'recalls', href: '/recalls', right: 'handOver' },
  { id: 'requests', href: '/requests', right: 'clinicalRead' },
  { id: 'figures', href: '/figures', right: 'read' },
] as const;
export type SupplyTab = (typeof TABS)[number]['id'];

/** The pages of the desk: who is due, what is on its way, what sellers ask. */
function Tabs({ here }: { readonly here: SupplyTab }) {
  const t = useTranslations('desk');
  const { session } = useServer();
  return (
    <nav aria-label={t('label')} className="tabs">
      {TABS.filter((tab) => may(session.viewer.roles, tab.right)).map((tab) => (
        <Link key={tab.id} href={tab.href} prefetch={false} className="tab" aria-current={tab.id === here ? 'page' : undefined}>
          {t(`tabs.${tab.id}`)}
        </Link>
      ))}
    </nav>
  );
}

export const SupplyTabs = withWords({ desk: deskWords }, Tabs);
