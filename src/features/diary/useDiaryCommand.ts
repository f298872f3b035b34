import { useSending } from '../common/useSending';

type DiaryCommand =
  'bookAppointment' | 'moveAppointment' | 'markAppointment' | 'sayLate' | 'undoAppointment' | 'addTask' | 'changeTask' | 'finishTask' | 'openVisit';

/** Sends a command of the diary. @param onDone the day is to be read anew */
export const useDiaryCommand = (onDone: () => void) => useSending<DiaryCommand>(onDone);
