import { useRouter } from 'next/navigation';
import { useSending } from '../common/useSending';

/** Sends a command of the drawer, and reads the drawer anew once it is done. */
export function useDrawerCommand() {
  const router = useRouter();
  return useSending<'receiveTrials' | 'discardTrials' | 'countTrials' | 'lendTrials' | 'endTrialLoan' | 'setTrialLevels'>(() => router.refresh());
}
