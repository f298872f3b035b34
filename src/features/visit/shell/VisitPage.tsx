'use client';
import { useEffect, useMemo, type ReactNode } from 'react';
import { useTranslations } from 'use-intl';
import type { VisitPage as PageName } from '@/core';
import type { SessionContext } from '@/services/sessionContext';
import type { VisitPart } from '@/services/visit/slices';
import { Frame } from '@/ui/Frame';
import { Rail } from '../../common/Rail';
import { useServer } from '../../common/ServerProvider';
import { WearerStrip } from '../../common/WearerStrip';
import { useVisit, VisitProvider } from './VisitProvider';

/** Pages that show nothing without the practice's library. */
const OF_THE_LIBRARY: readonly PageName[] = ['kind', 'lens', 'diagnosticSet', 'prescription', 'print'];

/**
 * One page of a visit, with what it has read.
 * @param part what the page works with, as JSON text: a thousand small values told one by one cost the server more than reading them
 */
export function VisitPage({
  page,
  part,
  session,
  children,
}: {
  readonly page: PageName;
  readonly part: string;
  readonly session: SessionContext;
  readonly children: ReactNode;
}) {
  const { learn } = useServer();
  useEffect(() => learn(session), [learn, session]);
  const data = useMemo(() => ({ ...(JSON.parse(part) as VisitPart), page }), [part, page]);
  return (
    <VisitProvider data={data}>
      <OnceRead page={page}>{children}</OnceRead>
    </VisitProvider>
  );
}

/** The step, or, the first time on this device, a moment of waiting for the library. */
function OnceRead({ page, children }: { readonly page: PageName; readonly children: ReactNode }) {
  const t = useTranslations('frame');
  const visit = useTranslations('visitFrame');
  const { record, hasLibrary } = useVisit();
  if (hasLibrary || !OF_THE_LIBRARY.includes(page)) return children;
  return (
    <Frame
      rail={<Rail place={null} />}
      strip={<WearerStrip wearer={record.wearer} />}
      margin={null}
      marginWords={{ open: t('marginOpen'), close: t('marginClose'), label: t('margin') }}
      bar={null}
    >
      <p className="p-8 label" role="status">
        {visit('readingLibrary')}
      </p>
    </Frame>
  );
}
