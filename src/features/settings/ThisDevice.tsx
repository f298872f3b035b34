'use client';
import { useTranslations } from 'use-intl';
import { Segment } from '@/ui/Segment';
import { useDeviceChoice } from '../common/deviceChoice';
import { Pedal } from './Pedal';

/** What is chosen on this device, whoever signs in: single-key shortcuts, the pedal, and the sound of the settle clocks. */
export function ThisDevice() {
  const t = useTranslations('device');
  return (
    <section className="px-6 pb-4">
      <h2 className="settings-group">{t('title')}</h2>
      <p className="note mb-2">{t('text')}</p>
      <Choice name="keys" standard="on" label={t('keys')} hint={t('keysText')} />
      <Pedal />
      <Choice name="sound" standard="off" label={t('sound')} />
    </section>
  );
}

function Choice({
  name,
  standard,
  label,
  hint,
}: {
  readonly name: 'keys' | 'sound';
  readonly standard: 'on' | 'off';
  readonly label: string;
  readonly hint?: string;
}) {
  const t = useTranslations('device');
  const [chosen, choose] = useDeviceChoice(name);
  const now = chosen ?? standard;
  return (
    <div className="flex gap-4 items-center py-2 border-b border-rule flex-wrap">
      <div className="flex-1 min-w-[240px]">
        <div>{label}</div>
        {hint ? <div className="note">{hint}</div> : null}
      </div>
      <Segment label={label} values={['on', 'off']} value={now} word={(value) => t(value)} onChoose={choose} />
    </div>
  );
}
