import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { EYES, type Eye } from '@/core';
import { inDrawer } from '../../shell/candidates';
import { useDraft, type Draft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useKey } from '../../../common/keys';
import { handKey, isApart, specOf, toggled } from './model';
import { useLensList, type LensList } from './useLensList';

/** Walking and narrowing the list, by keys and by presses alike. */
function useListKeys(draft: Draft<'lens'>, { apart, ownKinds, lead, compared, rows, leadCode }: LensList, setPanel: (panel: 'compare' | 'map') => void) {
  const forgetEyes = (): void => {
    draft.set('rightFamily', '');
    draft.set('leftFamily', '');
  };
  const choose = (code: string): void => {
    if (apart) draft.set(`${lead}Family`, code);
    else {
      forgetEyes();
      draft.set('family', code);
    }
  };
  const move = (by: number): void => {
    const at = rows.findIndex((r) => r.family.code === leadCode);
    const next = rows[Math.max(0, Math.min(rows.length - 1, at + by))];
    if (!next) return;
    choose(next.family.code);
    document.getElementById(`candidate-${next.family.code}`)?.scrollIntoView({ block: 'nearest' });
  };
  // As it stands at the press: E and L come faster than the page is drawn.
  const apartNow = (): boolean => isApart(draft.now('apart'), ownKinds);
  const setApart = (): void => {
    const was = apartNow();
    draft.set('apart', was ? 'no' : 'yes');
    if (was) forgetEyes();
  };
  const compare = (code: string): void => draft.set('compare', toggled(compared, code).join(','));
  useHotkeys('down', (e) => (e.preventDefault(), move(1)), [rows, leadCode, apart, lead]);
  useHotkeys('up', (e) => (e.preventDefault(), move(-1)), [rows, leadCode, apart, lead]);
  useKey('c', () => (leadCode === undefined ? undefined : compare(leadCode)), [leadCode, compared.join(',')]);
  useKey('v', () => (compared.length > 0 ? setPanel('compare') : undefined), [compared.join(',')]);
  useKey('m', () => setPanel('map'), []);
  useKey('e', setApart, [lead]);
  useKey('r', () => (apartNow() ? draft.set('lead', 'right') : undefined), []);
  useKey('l', () => (apartNow() ? draft.set('lead', 'left') : undefined), []);
  return { choose, setApart, compare };
}

/** The list, what of it is chosen, and putting it on the eyes. */
export function useChoosing() {
  const t = useTranslations('lens');
  const router = useRouter();
  const { record, run } = useVisit();
  const draft = useDraft('lens');
  const [panel, setPanel] = useState<'compare' | 'map' | null>(null);
  const lens = useLensList(draft);
  const { chosen, list } = lens;
  const keys = useListKeys(draft, lens, setPanel);
  const despite =
    EYES.flatMap((e) => chosen[e]?.family ?? []).flatMap((family) =>
      list.passing(family).map((id) => ({ id, family: family.name, age: family.minAge ?? 0 })),
    )[0] ?? null;
  const despiteReason = draft.body.despite ?? '';
  const missing = EYES.filter((e) => chosen[e] && inDrawer(record, chosen[e].family.code, chosen[e].lens, chosen[e].variant) === 0);
  /** What is typed of a lens in the hand; null where the drawer has one, or nothing is typed yet. */
  const inHand = (e: Eye) => {
    const lens = missing.includes(e) ? chosen[e] : null;
    const lot = lens ? (draft.body[handKey(e, 'Lot', lens)] ?? '') : '';
    return lens && lot.trim() !== '' ? { lot, expiresOn: draft.body[handKey(e, 'Expires', lens)] ?? '' } : null;
  };
  const putOn = async (): Promise<void> => {
    const spec = (e: Eye) => chosen[e] && { ...specOf(chosen[e]), inHand: inHand(e) };
    const done = await run('putOnTrials', { right: spec('right'), left: spec('left'), ...(despite ? { despiteReason } : {}) }, t('putOnDone'));
    if (!done?.ok) return;
    draft.clear();
    router.push(`/visits/${record.visit.id}/on-eye`);
  };
  const order = async (): Promise<void> => {
    const lacking = (e: Eye) => (missing.includes(e) && inHand(e) === null && chosen[e] ? specOf(chosen[e]) : null);
    const requestKey = crypto.randomUUID();
    await run('orderTrials', { requestKey, right: lacking('right'), left: lacking('left'), ...(despite ? { despiteReason } : {}) }, t('orderTrialsDone'));
  };
  return {
    ...lens,
    ...keys,
    draft,
    panel,
    setPanel,
    missing,
    /** Lenses that nobody has: neither the drawer nor a hand. */
    lacking: missing.filter((e) => inHand(e) === null),
    ready: EYES.filter((e) => chosen[e]),
    despite,
    despiteReason,
    putOn,
    order,
  };
}
export type Choosing = ReturnType<typeof useChoosing>;
