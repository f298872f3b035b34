'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import exerciseWords from '@/i18n/messages/en/exercise.messages.json';
import { withWords } from '@/i18n/withWords';
import type { LensShape } from '@/ui/drawing/lensSide';
import type { SceneName } from '@/ui/drawing/scene';
import { Drawing, type DrawnFor } from '../common/lesson/Drawing';

/** How each of the lenses is looked at: from the side, folded, by its mark. */
const LOOKS = ['profile', 'profile', 'fold', 'profile', 'mark'] as const;
type Look = (typeof LOOKS)[number];
const LENSES = LOOKS.length;
const SCENE = { profile: 'onFinger', fold: 'foldedBetween', mark: 'markOfLens' } as const satisfies Readonly<Record<Look, SceneName>>;
const SHAPES = ['bowl', 'flare'] as const satisfies readonly LensShape[];
type Shape = (typeof SHAPES)[number];
const some = (): readonly Shape[] => {
  const random = crypto.getRandomValues(new Uint8Array(LENSES));
  return Array.from(random, (n) => (n % 2 === 0 ? 'bowl' : 'flare'));
};

/** Five lenses on the wearer's own finger: a bowl or a saucer? A wrong answer shows both beside each other and counts nothing. */
function WhichWayOutPart({ of, onDone }: { readonly of: DrawnFor; readonly onDone: () => void }) {
  const t = useTranslations('exercise');
  const [lenses, setLenses] = useState(some);
  const [at, setAt] = useState(0);
  const [said, setSaid] = useState<Shape | null>(null);
  const lens = lenses[at];
  const look = LOOKS[at];
  if (lens === undefined || look === undefined)
    return (
      <div className="show-plain">
        <h1>{t('which.done')}</h1>
        <p className="show-choices">
          <button
            type="button"
            className="btn show-button"
            onClick={() => {
              setLenses(some());
              setAt(0);
            }}
          >
            {t('which.again')}
          </button>
          <button type="button" className="btn btn-act show-button" onClick={onDone}>
            {t('close')}
          </button>
        </p>
      </div>
    );
  const right = said === lens;
  return (
    <div className="show-body" data-testid="which-way-out">
      {said !== null && !right ? (
        <div className="show-both">
          {SHAPES.map((shape) =>
            look === 'profile' ? (
              <Drawing key={shape} scene={shape} of={of} ink={3} />
            ) : (
              <Drawing key={shape} scene={SCENE[look]} of={of} ink={3} detail={shape === 'bowl' ? BOWL : FLARE} />
            ),
          )}
        </div>
      ) : (
        <Drawing scene={SCENE[look]} of={of} ink={3} detail={lens === 'bowl' ? BOWL : FLARE} />
      )}
      <div aria-live="polite">
        <h1>{t('which.title')}</h1>
        <p>{t('which.count', { lens: at + 1, lenses: LENSES })}</p>
        {said === null ? (
          <p className="show-choices">
            {SHAPES.map((shape) => (
              <button key={shape} type="button" className="btn show-button" onClick={() => setSaid(shape)}>
                {t(`which.${look}.${shape}`)}
              </button>
            ))}
          </p>
        ) : (
          <>
            <p className="show-answer">{t(right ? `which.${look}.right.${lens}` : `which.${look}.wrong.${lens}`)}</p>
            <button
              type="button"
              className="btn btn-act show-button"
              onClick={() => {
                setSaid(null);
                setAt(at + 1);
              }}
            >
              {t('next')}
            </button>
          </>
        )}
      </div>
    </div>
  );
}
const BOWL = { shape: 'bowl' } as const;
const FLARE = { shape: 'flare' } as const;

export const WhichWayOut = withWords({ exercise: exerciseWords }, WhichWayOutPart);
