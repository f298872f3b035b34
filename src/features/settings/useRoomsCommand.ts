import { useRouter } from 'next/navigation';
import { useSending } from '../common/useSending';

/** Sends a command about rooms and hours, and reads the page anew once it is done. */
export function useRoomsCommand() {
  const router = useRouter();
  return useSending<'changePractice' | 'addRoom' | 'changeRoom' | 'setOpeningHours' | 'setClosedDay'>(() => router.refresh());
}
