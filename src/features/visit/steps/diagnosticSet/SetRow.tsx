import { useTranslations } from 'use-intl';
import { formatRefraction, mayGoOn, type Eye } from '@/core';
import { Stated } from '@/ui/marks';
import { SpineRow } from '@/ui/Spine';
import { useReadyWords } from '../../../common/setReady';
import type { SetLensOf, SetOf } from './model';
import type { SetsHere } from './useSets';

/** One set: its lenses as steps from steep to flat on either side of the spine, the proposed one named. */
export function SetRow({ set, page }: { readonly set: SetOf; readonly page: SetsHere }) {
  const t = useTranslations('diagnosticSet');
  const { family } = set;
  return (
    <div data-testid={`set-row-${set.code}`}>
      <SpineRow
        chosen={page.going.some((e) => page.chosen[e]?.setCode === set.code)}
        label={<span className="font-[620]">{set.name}</span>}
        note={t('clocks', { fit: family.settleMinutes, sight: family.sightMinutes ?? family.settleMinutes })}
        right={<Ladder eye="right" set={set} page={page} />}
        left={<Ladder eye="left" set={set} page={page} />}
      />
    </div>
  );
}

function Ladder({ eye, set, page }: { readonly eye: Eye; readonly set: SetOf; readonly page: SetsHere }) {
  const t = useTranslations('diagnosticSet');
  const proposal = set.proposed[eye];
  const chosen = page.chosen[eye]?.setCode === set.code ? page.chosen[eye] : null;
  return (
    <div className={`flex flex-col gap-1 w-full ${eye === 'right' ? 'items-end' : 'items-start'}`}>
      <div className={`flex flex-wrap gap-1 ${eye === 'right' ? 'justify-end' : ''}`} role="group" aria-label={t('ladder', { set: set.name, eye })}>
        {set.lenses.map((lens) => (
          <Rung key={lens.id} eye={eye} lens={lens} proposed={proposal?.lens.id === lens.id} page={page} />
        ))}
      </div>
      {proposal ? (
        <span className="note" data-testid={`proposed-${set.code}-${eye}`}>
          {t(`why.${proposal.why}`, { number: proposal.lens.number, curve: curveOf(proposal.lens) })}
        </span>
      ) : null}
      {chosen ? <ChosenLine lens={chosen} /> : null}
    </div>
  );
}

const curveOf = (lens: SetLensOf): string => `${lens.baseCurve.toFixed(1)} / ${lens.diameter.toFixed(1)}`;

function Rung({ eye, lens, proposed, page }: { readonly eye: Eye; readonly lens: SetLensOf; readonly proposed: boolean; readonly page: SetsHere }) {
  const t = useTranslations('diagnosticSet');
  const on = page.chosen[eye]?.id === lens.id;
  const free = mayGoOn(page.stateOf(lens));
  return (
    <button
      type="button"
      className="btn set-rung"
      aria-pressed={on}
      data-proposed={proposed || undefined}
      data-free={free}
      aria-label={t('rung', { number: lens.number, curve: curveOf(lens), eye, free: free ? 'yes' : 'no' })}
      onClick={() => page.pick(eye, on ? null : lens.id)}
    >
      <span className="value">{lens.number}</span> <span className="note">{lens.baseCurve.toFixed(1)}</span>
    </button>
  );
}

/** The lens that is to go on: its number, what it is, and whether it may. */
function ChosenLine({ lens }: { readonly lens: SetLensOf }) {
  const t = useTranslations('diagnosticSet');
  const { mark, words } = useReadyWords()(lens);
  const power = formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg });
  return (
    <span className="flex flex-wrap gap-2 items-baseline">
      <span className="power">{t('chosen', { number: lens.number, power })}</span>
      <span className="note">{curveOf(lens)}</span>
      <Stated state={mark}>{words}</Stated>
    </span>
  );
}
