'use client';
import { useState } from 'react';
import { useTranslations } from 'use-intl';
import exerciseWords from '@/i18n/messages/en/exercise.messages.json';
import { withWords } from '@/i18n/withWords';
import type { LensShape } from '@/ui/drawing/lensSide';
import { Drawing, type DrawnFor } from '../common/lesson/Drawing';

const LENSES = 5;
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
  if (lens === undefined)
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
          <Drawing scene="bowl" of={of} ink={3} />
          <Drawing scene="flare" of={of} ink={3} />
        </div>
      ) : (
        <Drawing scene="onFinger" of={of} ink={3} detail={lens === 'bowl' ? BOWL : FLARE} />
      )}
      <div aria-live="polite">
        <h1>{t('which.title')}</h1>
        <p>{t('which.count', { lens: at + 1, lenses: LENSES })}</p>
        {said === null ? (
          <p className="show-choices">
            {SHAPES.map((shape) => (
              <button key={shape} type="button" className="btn show-button" onClick={() => setSaid(shape)}>
                {t(`which.${shape}`)}
              </button>
            ))}
          </p>
        ) : (
          <>
            <p className="show-answer">{t(right ? `which.right.${lens}` : `which.wrong.${lens}`)}</p>
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
