'use client';
import type { ReactNode } from 'react';
import { useWordsOf } from '@/i18n/wordsOf';
import type { SessionContext } from '@/services/sessionContext';
import { AppShell } from '../../common/AppShell';
import { RuleName } from '../../common/words';
import { VisitStoreProvider } from './VisitStore';
import answersWords from '@/i18n/messages/en/answers.messages.json';
import stepsWords from '@/i18n/messages/en/steps.messages.json';
import ruleNamesWords from '@/i18n/messages/en/ruleNames.messages.json';
import visitFrameWords from '@/i18n/messages/en/visitFrame.messages.json';
import visitWords from '@/i18n/messages/en/visit.messages.json';
import { LateWords, PageWords } from '@/i18n/MessagesProvider';

/** What is said of a refusal. */
const loadProblems = () => import('@/i18n/messages/en/visitProblems.messages.json').then((m) => ({ problems: m.default }));
const WORDS = { answers: answersWords, steps: stepsWords, ruleNames: ruleNamesWords, visit: visitWords, visitFrame: visitFrameWords };

/** Names of rules, for what is refused in a visit. */
function RuleNames({ children }: { readonly children: ReactNode }) {
  const name = useWordsOf('ruleNames');
  return <RuleName.Provider value={name}>{children}</RuleName.Provider>;
}

/** What all pages of a visit stand in: going between steps keeps it. */
export function VisitShell({ visitId, session, children }: { readonly visitId: string; readonly session: SessionContext; readonly children: ReactNode }) {
  return (
    <AppShell session={session}>
      <PageWords words={WORDS}>
        <LateWords load={loadProblems}>
          <RuleNames>
            <VisitStoreProvider key={visitId} visitId={visitId}>
              {children}
            </VisitStoreProvider>
          </RuleNames>
        </LateWords>
      </PageWords>
    </AppShell>
  );
}
