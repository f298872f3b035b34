import { notFound } from 'next/navigation';
import { stepSlug, type VisitPage as PageName } from '@/core';
import { VisitPage } from '@/features/visit/shell/VisitPage';
import { EyeHealthStep } from '@/features/visit/steps/eyeHealth/EyeHealthStep';
import { HistoryStep } from '@/features/visit/steps/history/HistoryStep';
import { KindStep } from '@/features/visit/steps/kind/KindStep';
import { LensStep } from '@/features/visit/steps/lens/LensStep';
import { LessonStep } from '@/features/visit/steps/lesson/LessonStep';
import { OnEyeStep } from '@/features/visit/steps/onEye/OnEyeStep';
import { PrescriptionStep } from '@/features/visit/steps/prescription/PrescriptionStep';
import { RefractionStep } from '@/features/visit/steps/refraction/RefractionStep';
import { SupplyStep } from '@/features/visit/steps/supply/SupplyStep';
import { readVisit } from '@/services/visit/queries';
import { readPage } from '../../../access';
import { Refused } from '../../../Refused';

const STEPS: Readonly<Record<Exclude<PageName, 'print'>, () => React.ReactNode>> = {
  history: HistoryStep,
  eyeHealth: EyeHealthStep,
  kind: KindStep,
  refraction: RefractionStep,
  lens: LensStep,
  onEye: OnEyeStep,
  prescription: PrescriptionStep,
  lesson: LessonStep,
  supply: SupplyStep,
};
const PAGES = Object.keys(STEPS) as (keyof typeof STEPS)[];

export const metadata = { title: 'Fit' };

export default async function Page({ params }: { params: Promise<{ id: string; step: string }> }) {
  const { id, step } = await params;
  const page = PAGES.find((name) => (name === 'kind' ? step === 'kind' : stepSlug(name) === step));
  if (!page) notFound();
  const read = await readPage(readVisit, { visitId: id, page }, `/visits/${id}/${step}`);
  if (!read.ok) return <Refused problem={read.error} />;
  const Step = STEPS[page];
  return (
    <VisitPage page={page} {...read.value}>
      <Step />
    </VisitPage>
  );
}
