'use client';
import { formatRefraction, inForce, wornDoubts, type WearerFile } from '@/core';
import wornNowWords from '@/i18n/messages/en/wornNow.messages.json';
import { withWords } from '@/i18n/withWords';
import { useServer } from '../common/ServerProvider';
import { WornDoubts } from '../common/WornDoubts';

/** What does not go together in what is known, before a visit begins. */
function ContradictionsOf({ file }: { readonly file: WearerFile }) {
  const { session } = useServer();
  const powerOf = (lensId: string): string => {
    const lens = file.lenses[lensId];
    return lens ? formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }) : '';
  };
  const doubts = wornDoubts({
    file,
    losses: file.losses,
    lensOf: (id) => file.lenses[id],
    daysPerWeek: inForce(file.prescriptions)[0]?.daysPerWeek ?? 7,
    today: session.today,
    timeZone: session.practice.timeZone,
    visitId: null,
  });
  return <WornDoubts doubts={doubts} powerOf={powerOf} />;
}

export const Contradictions = withWords({ wornNow: wornNowWords }, ContradictionsOf);
