'use client';
import { useRef, useState } from 'react';
import { useTranslations } from 'use-intl';
import { formatRefraction, type Eye } from '@/core';
import { readBoxCode, type BoxCode, type BoxCodeFault } from '@/formats/gs1/elementString';
import { Button } from '@/ui/Button';
import { EyeBadge, Stated } from '@/ui/marks';
import { useEyeWords } from '../eyeWords';
import { useServer } from '../ServerProvider';
import type { ServiceOutput } from '../server';
import type { AwaitedBoxes } from './ReceiptForm';
import { ScanField } from './ScanField';

/** What a box says that can be received. */
export interface ReadBox extends BoxCode {
  readonly gtin: string;
}
/** Why a box is not taken for an eye; null where it is. */
export type NotTaken = 'another' | 'twice' | 'full' | null;

type Named = ServiceOutput<'readBox'>;
type Said =
  | { readonly kind: 'fault'; readonly fault: BoxCodeFault }
  | { readonly kind: 'noNumber' }
  | { readonly kind: 'away' }
  | { readonly kind: 'ask'; readonly box: ReadBox }
  | { readonly kind: 'other'; readonly named: Named }
  | { readonly kind: 'taken'; readonly eye: Eye; readonly box: ReadBox }
  | { readonly kind: 'notTaken'; readonly eye: Eye; readonly why: Exclude<NotTaken, null> };

interface ScanProps {
  readonly orderId: string;
  readonly lines: readonly AwaitedBoxes[];
  /** Boxes of an eye that are still to come, those scanned here taken off. */
  readonly leftOf: (eye: Eye) => number;
  readonly take: (eye: Eye, box: ReadBox) => NotTaken;
  readonly first: boolean;
}

/** Boxes as a scanner sends them, or as their codes are typed: each goes to the eye whose lens it is. */
export function ScanBox({ orderId, lines, leftOf, take, first }: ScanProps) {
  const t = useTranslations('receipt');
  const { look, session } = useServer();
  const [said, setSaid] = useState<Said | null>(null);
  // What codes name, as far as it was asked, or said here.
  const known = useRef(new Map<string, Named>());
  const give = (eye: Eye, box: ReadBox): void => {
    const why = take(eye, box);
    setSaid(why === null ? { kind: 'taken', eye, box } : { kind: 'notTaken', eye, why });
  };
  const nameOf = async (gtin: string): Promise<Named | null> => {
    const there = known.current.get(gtin);
    if (there) return there;
    const found = await look('readBox', { orderId, gtin });
    if (!found?.ok) return null;
    if (found.value.lens !== null) known.current.set(gtin, found.value);
    return found.value;
  };
  /** Somebody read the power on the box: its code means this lens from now on. */
  const choose = (eye: Eye, box: ReadBox): void => {
    known.current.set(box.gtin, { lens: null, eyes: [eye], others: [] });
    give(eye, box);
  };
  const read = async (scanned: string): Promise<void> => {
    const code = readBoxCode(scanned, session.today);
    if (!code.ok) return setSaid({ kind: 'fault', fault: code.error });
    const { gtin } = code.value;
    if (gtin === null) return setSaid({ kind: 'noNumber' });
    const box = { ...code.value, gtin };
    const named = await nameOf(gtin);
    if (named === null) return setSaid({ kind: 'away' });
    const { lens, eyes } = named;
    if (lens === null && eyes.length === 0) return setSaid({ kind: 'ask', box });
    // Equal powers in both eyes: the box goes to the one that lacks more.
    const [eye] = [...eyes].sort((a, b) => leftOf(b) - leftOf(a));
    if (eye === undefined) return setSaid({ kind: 'other', named });
    give(eye, box);
  };
  return (
    <div className="pb-2" data-testid="scan">
      <ScanField label={t('scan')} hint={t('scanHint')} autoFocus={first} onScan={read} />
      <div role="status" aria-live="polite" className="min-h-6">
        <SaidOf said={said} lines={lines} onChoose={choose} />
      </div>
    </div>
  );
}

/** What became of the last box. */
function SaidOf({
  said,
  lines,
  onChoose,
}: {
  readonly said: Said | null;
  readonly lines: readonly AwaitedBoxes[];
  readonly onChoose: (eye: Eye, box: ReadBox) => void;
}) {
  const t = useTranslations('receipt');
  const eyeWords = useEyeWords();
  if (said === null) return null;
  switch (said.kind) {
    case 'fault':
      return <Stated state="stop">{t(`fault.${said.fault.code}`, { ai: said.fault.ai ?? '', value: said.fault.value ?? '' })}</Stated>;
    case 'noNumber':
      return <Stated state="stop">{t('noNumber')}</Stated>;
    case 'away':
      return <Stated state="watch">{t('away')}</Stated>;
    case 'taken':
      return (
        <Stated state="ok">
          {t('taken', { eye: eyeWords.name(said.eye), lot: said.box.lot ?? '' })} <EyeBadge eye={said.eye} />
        </Stated>
      );
    case 'notTaken':
      return <Stated state="stop">{t(`notTaken.${said.why}`, { eye: eyeWords.name(said.eye) })}</Stated>;
    case 'other': {
      const { lens, others } = said.named;
      const power = lens === null ? '' : formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg });
      return (
        <Stated state="stop">
          <b className="power">{t('other', { power, family: lens?.familyName ?? '' })}</b>{' '}
          {others.length > 0 ? t('perhaps', { who: others.map((o) => t('who', { name: o.wearerName, number: o.number })).join(', ') }) : t('nobodys')}
        </Stated>
      );
    }
    case 'ask':
      return (
        <span className="flex gap-3 items-center flex-wrap">
          <Stated state="watch">{t('ask')}</Stated>
          {lines.map((line) => (
            <Button key={line.eye} onClick={() => onChoose(line.eye, said.box)}>
              <EyeBadge eye={line.eye} /> {line.power ?? t('raw')}
            </Button>
          ))}
        </span>
      );
  }
}
