import { useTranslations } from 'use-intl';
import { eyeState, type EyeState, type FactChain, type OnEyeFact } from '@/core';
import { useEyeWords } from '../../../common/eyeWords';
import { contextsOf } from '../../shell/eyes';
import { useVisit } from '../../shell/VisitProvider';

/** A lens tried on an eye in this visit, that still stands. */
export type Tried = FactChain<OnEyeFact> & { readonly current: OnEyeFact };

/** One lens of the line with the state its own readings come to. */
export function useTried(chain: Tried): { readonly state: EyeState; readonly decided: boolean } {
  const { record, lensOf, eye } = useVisit();
  const e = chain.current.eye;
  const context = { ...contextsOf(record)[e], lensOnEyeId: chain.rootId };
  return { state: eyeState(record.facts, e, lensOf, record.session.settings, context), decided: eye(e).onEye?.rootId === chain.rootId };
}

/** A lens by its number, or by where it came from. */
export function TriedName({ chain }: { readonly chain: Tried }) {
  const t = useTranslations('lensLine');
  const eyeWords = useEyeWords();
  const row = chain.current;
  const eye = eyeWords.short(row.eye);
  return <>{row.source === 'trial' ? t('trial', { eye, number: row.trialNumber ?? 1 }) : t(row.source === 'broughtIn' ? 'brought' : 'worn', { eye })}</>;
}
