'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import drawingWords from '@/i18n/messages/en/drawing.messages.json';
import lampHelpWords from '@/i18n/messages/en/lampHelp.messages.json';
import sceneWords from '@/i18n/messages/en/scenes.messages.json';
import { withWords } from '@/i18n/withWords';
import type { SceneName } from '@/ui/drawing/scene';
import { Panel } from '@/ui/Panel';
import { Segment } from '@/ui/Segment';
import { Drawing, type DrawnFor } from '../../../common/lesson/Drawing';

/** What whoever sits at the lamp does for somebody else, and what is taught while a lens settles: one or two drawings and three lines each. */
const TOPICS = {
  placing: ['placeForSomebody', 'rollFingerAway'],
  settled: ['lidRises'],
  takingOff: ['fingerOnLens', 'takeOffForSomebody'],
  afterTrial: ['rubLens', 'rinseLens'],
  meanwhile: ['washHands', 'bowl', 'dangerSigns'],
} as const satisfies Readonly<Record<string, readonly SceneName[]>>;
const NAMES = Object.keys(TOPICS) as (keyof typeof TOPICS)[];
const DRAWN: DrawnFor = { hand: 'right', eye: 'right', skinTone: 3, view: 'facing' };

function Help({ onClose }: { readonly onClose: () => void }) {
  const t = useTranslations('lampHelp');
  const [topic, setTopic] = useState(NAMES[0] ?? 'placing');
  return (
    <Panel open wide onClose={onClose} title={t('title')}>
      <Segment label={t('title')} kind="wrapping" values={NAMES} value={topic} word={(name) => t(`${name}.name`)} onChoose={setTopic} />
      <div className="grid grid-cols-2 gap-3 py-3" data-testid="lamp-help">
        {TOPICS[topic].map((scene) => (
          <Drawing key={scene} scene={scene} of={DRAWN} />
        ))}
      </div>
      <ul className="list-disc pl-5">
        {(['1', '2', '3'] as const).map((n) => (
          <li key={n}>{t(`${topic}.lines.${n}`)}</li>
        ))}
      </ul>
    </Panel>
  );
}

export const LampHelp = withWords({ drawing: drawingWords, lampHelp: lampHelpWords, scenes: sceneWords }, Help);
