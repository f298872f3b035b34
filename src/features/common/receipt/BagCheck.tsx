'use client';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import type { Eye } from '@/core';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { useEyeWords } from '../eyeWords';
import { useServer } from '../ServerProvider';
import type { ServiceOutput } from '../server';
import { ScanField } from './ScanField';

type Said = ServiceOutput<'readBag'> | { readonly kind: 'away' } | { readonly kind: 'otherEye'; readonly eye: Eye; readonly bag: Eye };

/** Bags and boxes scanned as they are handed over: each is said whose it is, and a box in the other eye's bag stops it. */
export function BagCheck({
  orderId,
  onSeen,
  onWrong,
}: {
  readonly orderId: string;
  readonly onSeen: (receiptIds: readonly string[]) => void;
  readonly onWrong: (wrong: boolean) => void;
}) {
  const t = useTranslations('supply.bag');
  const eyeWords = useEyeWords();
  const { look } = useServer();
  const [said, setSaid] = useState<Said | null>(null);
  // A box that does not belong lies in the bag, until the right one is scanned or somebody says that it is out.
  const [wrong, setWrong] = useState(false);
  // The bag whose label was scanned last: boxes after it lie in it.
  const bag = useRef<Eye | null>(null);
  const hold = (is: boolean): void => {
    setWrong(is);
    onWrong(is);
  };
  const read = async (code: string): Promise<void> => {
    const found = await look('readBag', { orderId, code });
    if (!found?.ok) return setSaid({ kind: 'away' });
    const is = found.value;
    if (is.kind === 'here' && is.by === 'label') bag.current = is.eye;
    const other = is.kind === 'here' && is.by === 'box' && is.receiptIds.length === 1 && bag.current !== null && bag.current !== is.eye;
    setSaid(other ? { kind: 'otherEye', eye: is.eye, bag: bag.current ?? is.eye } : is);
    // What cannot be read, or went home before, takes no wrong box out of the bag.
    if (other || is.kind === 'another' || is.kind === 'unknown') hold(true);
    if (is.kind === 'here' && !other) {
      hold(false);
      onSeen(is.receiptIds);
    }
  };
  const clear = (): void => {
    setSaid(null);
    hold(false);
  };
  const words = (): string => {
    if (said === null) return '';
    if (said.kind === 'here') return t('here', { eye: eyeWords.name(said.eye) });
    if (said.kind === 'handedOver') return t('handedOver', { eye: eyeWords.name(said.eye) });
    if (said.kind === 'otherEye') return t('otherEye', { eye: said.eye, bag: said.bag });
    if (said.kind === 'another') return t('another', { name: said.wearerName, number: said.number });
    return t(said.kind);
  };
  return (
    <div data-testid="bag-check" className="max-w-[520px]">
      <ScanField label={t('scan')} hint={t('hint')} onScan={read} />
      <div role="status" aria-live="polite" className="min-h-6">
        {said === null ? null : (
          <Stated state={said.kind === 'here' ? 'ok' : said.kind === 'away' ? 'watch' : 'stop'}>
            {words()} {said.kind === 'here' || said.kind === 'otherEye' ? <EyeBadge eye={said.eye} /> : null}
          </Stated>
        )}
        {wrong ? (
          <Button look="quiet" onClick={clear}>
            {t('cleared')}
          </Button>
        ) : null}
      </div>
    </div>
  );
}
