'use client';
import type { ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import { Frame } from '@/ui/Frame';
import { WallClock } from './Clock';
import { SettleClocks } from './LazySettleClocks';
import { useServer } from './ServerProvider';
import { Rail, type RailPlace } from './Rail';

/** A page about the practice, not about one wearer: the rail, its title over the practice's name, the clock. */
export function AppPage({
  place,
  title,
  strip,
  bar,
  margin,
  marginOpen,
  children,
}: {
  readonly place: RailPlace;
  readonly title: string;
  /** More cells of the strip, beside the title. */
  readonly strip?: ReactNode;
  readonly bar?: ReactNode;
  readonly margin?: ReactNode;
  /** What stands in the margin, where a narrow page folds it away; its reasoning when absent. */
  readonly marginOpen?: string;
  readonly children: ReactNode;
}) {
  const t = useTranslations('frame');
  const { session } = useServer();
  return (
    <Frame
      rail={<Rail place={place} />}
      strip={
        <>
          <div className="px-6 py-2 flex flex-col justify-center">
            <h1 className="power">{title}</h1>
            <div className="label">{session.practice.name}</div>
          </div>
          {strip}
          <span className="ml-auto" />
          <SettleClocks />
          <WallClock />
        </>
      }
      marginWords={{ open: marginOpen ?? t('marginOpen'), close: t('marginClose'), label: t('margin') }}
      bar={bar}
      margin={margin}
    >
      {children}
    </Frame>
  );
}
