import { useRouter } from 'next/navigation';
import { useState } from 'react';
import { useHotkeys } from 'react-hotkeys-hook';
import { useTranslations } from 'use-intl';
import { EYES } from '@/core';
import { inDrawer } from '../../shell/candidates';
import { useDraft } from '../../shell/useDraft';
import { useVisit } from '../../shell/VisitProvider';
import { useKey } from '../../../common/keys';
import { specOf, toggled } from './model';
import { useLensList } from './useLensList';

/** The list, what of it is chosen, and what can be done: by keys and by presses alike. */
export function useChoosing() {
  const t = useTranslations('lens');
  const router = useRouter();
  const { record, run } = useVisit();
  const draft = useDraft('lens');
  const [panel, setPanel] = useState<'compare' | 'map' | null>(null);
  const lens = useLensList(draft);
  const { apart, lead, compared, rows, chosen, leadCode, list } = lens;

  const choose = (code: string): void => {
    if (apart) draft.set(`${lead}Family`, code);
    else {
      draft.set('rightFamily', '');
      draft.set('leftFamily', '');
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
  useHotkeys(
    'down',
    (e) => {
      e.preventDefault();
      move(1);
    },
    [rows, leadCode, apart, lead],
  );
  useHotkeys(
    'up',
    (e) => {
      e.preventDefault();
      move(-1);
    },
    [rows, leadCode, apart, lead],
  );
  const setApart = (): void => {
    draft.set('apart', apart ? '' : 'yes');
    if (apart) {
      draft.set('rightFamily', '');
      draft.set('leftFamily', '');
    }
  };
  const compare = (code: string): void => draft.set('compare', toggled(compared, code).join(','));
  useKey('c', () => (leadCode === undefined ? undefined : compare(leadCode)), [leadCode, compared.join(',')]);
  useKey('v', () => (compared.length > 0 ? setPanel('compare') : undefined), [compared.join(',')]);
  useKey('m', () => setPanel('map'), []);
  useKey('e', setApart, [apart]);
  useKey('r', () => (apart ? draft.set('lead', 'right') : undefined), [apart]);
  useKey('l', () => (apart ? draft.set('lead', 'left') : undefined), [apart]);

  const missing = EYES.filter((e) => chosen[e] && inDrawer(record, chosen[e].family.code, chosen[e].lens, chosen[e].variant) === 0);
  const ready = EYES.filter((e) => chosen[e]);
  const despite =
    EYES.flatMap((e) => chosen[e]?.family ?? []).flatMap((family) =>
      list.passing(family).map((id) => ({ id, family: family.name, age: family.minAge ?? 0 })),
    )[0] ?? null;
  const despiteReason = draft.body.despite ?? '';
  const putOn = async (): Promise<void> => {
    const spec = { right: chosen.right && specOf(chosen.right), left: chosen.left && specOf(chosen.left) };
    const done = await run('putOnTrials', { ...spec, ...(despite ? { despiteReason } : {}) }, t('putOnDone'));
    if (done?.ok) {
      draft.clear();
      router.push(`/visits/${record.visit.id}/on-eye`);
    }
  };
  return { ...lens, draft, panel, setPanel, choose, setApart, compare, missing, ready, despite, despiteReason, putOn };
}
export type Choosing = ReturnType<typeof useChoosing>;
