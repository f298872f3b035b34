import { useCallback, useEffect, useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatRecord } from '@/i18n/format';
import type { HomeDesk } from '@/services/takeHome/queries';
import { useServer } from '../common/ServerProvider';
import { useSending } from '../common/useSending';
import { saveSheet, type FileTrouble } from './saveSheet';
import { homeLanguage, isChecked, type HomeLanguage } from '../common/takeHome/words';

/** Prints a sheet once it stands on the page. */
function usePrinted(toPrint: number | null): void {
  const printed = useRef<number | null>(null);
  useEffect(() => {
    if (toPrint === null || printed.current === toPrint) return;
    printed.current = toPrint;
    window.print();
  }, [toPrint]);
}

/** The desk of a page to take home: its language, and the ways in which it is given. */
export function useHomeDesk(first: HomeDesk) {
  const t = useTranslations('takeHomeDesk');
  const { command, query } = useServer();
  const [desk, setDesk] = useState(first);
  const [language, setLanguage] = useState<HomeLanguage>(homeLanguage(first.language));
  const [said, setSaid] = useState('');
  const [trouble, setTrouble] = useState<FileTrouble | null>(null);
  const [link, setLink] = useState<string | null>(null);
  /** The sheet that is printed as soon as it stands on the page. */
  const [toPrint, setToPrint] = useState<number | null>(null);
  const { visitId, wearer } = desk;
  const read = useCallback(async (): Promise<void> => {
    const done = await query('readHomePage', { visitId });
    if (done?.ok) setDesk(done.value);
  }, [query, visitId]);
  const sending = useSending<'checkLanguage' | 'endWearerLink'>(() => void read());
  const [giving, setGiving] = useState(false);
  const { setProblem } = sending;
  const give = async (way: 'paper' | 'file' | 'link') => {
    setGiving(true);
    setTrouble(null);
    const done = await command('giveTakeHome', { visitId, language, way });
    setGiving(false);
    if (!done) return null;
    setProblem(done.ok ? null : done.error);
    await read();
    if (!done.ok) return null;
    setSaid(t('printed', { sheet: `${formatRecord(wearer.recordNumber)}-${done.value.number}` }));
    return done.value;
  };
  const file = async (sheetId: string, format: 'pdf' | 'ics'): Promise<void> => {
    setTrouble(null);
    setTrouble(await saveSheet(sheetId, format));
  };
  usePrinted(toPrint);
  return {
    ...{ desk, language, setLanguage, said, trouble, link, sending, file },
    busy: giving || sending.busy,
    checked: isChecked(language, desk.checks),
    /** The number of the sheet that stands on the page; null while none was given in this language. */
    number: toPrint,
    closeLink: (): void => setLink(null),
    print: async (): Promise<void> => {
      const given = await give('paper');
      if (given) setToPrint(given.number);
    },
    asFile: async (): Promise<void> => {
      const given = await give('file');
      if (given) await file(given.sheetId, 'pdf');
    },
    toPhone: async (): Promise<void> => {
      const given = await give('link');
      if (given) setLink(given.link);
    },
  };
}
export type Desk = ReturnType<typeof useHomeDesk>;
