import { notFound } from 'next/navigation';
import { EyeHealthStep } from '@/features/eyeHealth/EyeHealthStep';
import { FinalStep } from '@/features/final/FinalStep';
import { HistoryStep } from '@/features/history/HistoryStep';
import { KindStep } from '@/features/kind/KindStep';
import { LensStep } from '@/features/lens/LensStep';
import { OnEyeStep } from '@/features/onEye/OnEyeStep';
import { PowerStep } from '@/features/power/PowerStep';
import { SupplyStep } from '@/features/supply/SupplyStep';
import { TeachStep } from '@/features/teach/TeachStep';

const STEPS = {
  history: HistoryStep,
  'eye-health': EyeHealthStep,
  kind: KindStep,
  power: PowerStep,
  lens: LensStep,
  'on-eye': OnEyeStep,
  final: FinalStep,
  teach: TeachStep,
  supply: SupplyStep,
} as const;

export const metadata = { title: 'Fit' };

export default async function Page({ params }: { params: Promise<{ step: string }> }) {
  const { step } = await params;
  if (!Object.hasOwn(STEPS, step)) notFound();
  const Step = STEPS[step as keyof typeof STEPS];
  return <Step />;
}
