import { notFound } from 'next/navigation';
import { FinalStep } from '@/features/final/FinalStep';
import { LensStep } from '@/features/lens/LensStep';
import { OnEyeStep } from '@/features/onEye/OnEyeStep';
import { PowerStep } from '@/features/power/PowerStep';
import { SupplyStep } from '@/features/supply/SupplyStep';
import { TeachStep } from '@/features/teach/TeachStep';

const STEPS = { power: PowerStep, lens: LensStep, 'on-eye': OnEyeStep, final: FinalStep, teach: TeachStep, supply: SupplyStep } as const;

export const metadata = { title: 'Fit' };

export default async function Page({ params }: { params: Promise<{ step: string }> }) {
  const { step } = await params;
  if (!Object.hasOwn(STEPS, step)) notFound();
  const Step = STEPS[step as keyof typeof STEPS];
  return <Step />;
}
