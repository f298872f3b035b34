'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import { EYES, formatRefraction, parseRefraction, toCornealPlane, type Eye, type Refraction } from '@/core';
import rangeWords from '@/i18n/messages/en/range.messages.json';
import { withWords } from '@/i18n/withWords';
import type { FamilyPage } from '@/services/family/queries';
import { Field } from '@/ui/Field';
import { useEyeWords } from '../common/eyeWords';
import { useKey } from '../common/keys';
import { RangeOfFamily } from '../common/range/RangeOfFamily';
import { useServer } from '../common/ServerProvider';
import { useProblemWords } from '../common/words';

/** What a version makes, as a picture, with the power of glasses put on it for each eye. */
function Made({ page, shown }: { readonly page: FamilyPage; readonly shown: FamilyPage['versions'][number] }) {
  const t = useTranslations('library');
  const words = useProblemWords();
  const eyeWords = useEyeWords();
  const { session } = useServer();
  const { vertexMm } = session.settings;
  const [typed, setTyped] = useState<Readonly<Record<Eye, string>>>({ right: '', left: '' });
  useKey('r', (event) => (event.preventDefault(), document.getElementById('place-right')?.focus()));
  useKey('l', (event) => (event.preventDefault(), document.getElementById('place-left')?.focus()));
  const announced = page.versions.find((v) => v.startsOn !== null && v.startsOn > session.today && v.id !== shown.id);
  const needOf = (e: Eye): Refraction | null => {
    const read = parseRefraction(typed[e]);
    return read.ok ? toCornealPlane(read.value, vertexMm) : null;
  };
  const problemOf = (e: Eye): string | null => {
    const read = parseRefraction(typed[e]);
    return read.ok || typed[e].trim() === '' ? null : words(read.error.code, read.error.data);
  };
  const needs = { right: needOf('right'), left: needOf('left') };
  const hint = (need: Refraction | null): string | null => need && t('atCornea', { power: formatRefraction(need) });
  return (
    <>
      <RangeOfFamily
        family={shown}
        {...(announced ? { announced: announced.blocks } : {})}
        drawer={page.stock
          .filter((s) => s.count > 0 && s.expiresOn >= session.today)
          .map((s) => ({ sphere: s.sphereD, cylinder: s.cylinderD, axis: s.axisDeg }))}
        needs={needs}
        adds={{ right: null, left: null }}
      />
      <div className="flex flex-wrap gap-4 mt-4">
        {EYES.map((e) => (
          <Field
            key={e}
            id={`place-${e}`}
            label={t('placeEye', { eye: eyeWords.name(e), vertex: vertexMm })}
            value={typed[e]}
            onValue={(value) => setTyped({ ...typed, [e]: value })}
            problem={problemOf(e)}
            hint={hint(needs[e])}
            mono
            autoComplete="off"
            className="max-w-[260px]"
          />
        ))}
      </div>
    </>
  );
}

export const FamilyMade = withWords({ range: rangeWords }, Made);
