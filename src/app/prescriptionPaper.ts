import { formatRefraction, nameOfAdd, type CopyEye, type RawOrder } from '@/core';
import type { Paper } from '@/formats/pdf/paper';
import { formatDay, formatMoment, formatRecord } from '@/i18n/format';
import type { CopyPaper } from '@/services/exchange/queries';
import { translator } from './words';

const eyes = translator('eyes');
const raws = translator('raw');

function turnWords(rotationLeft: number): string {
  const degrees = Math.abs(Math.round(rotationLeft));
  if (degrees === 0) return eyes('sitsTrue');
  return eyes(rotationLeft > 0 ? 'toYourLeft' : 'toYourRight', { degrees });
}
const rawLines = (short: string, raw: RawOrder): readonly string[] => [
  `${short} ${raws('worn', { power: formatRefraction(raw.worn), family: raw.familyName, curve: raw.baseCurveMm.toFixed(1), diameter: raw.diameterMm.toFixed(1) })}`,
  raws('over', { power: formatRefraction(raw.overRefraction), vertex: raw.vertexMm }),
  raws('turn', { turn: turnWords(raw.rotationLeft) }),
];

/** One eye of the copy, line by line. */
function eyeLines({ eye, lens, raw, baseCurveMm, aim }: CopyEye): readonly string[] {
  const print = translator('print');
  const short = eyes(`${eye}.short`);
  if (raw) return rawLines(short, raw);
  if (!lens) return [];
  const line = print('eyeLine', {
    eye: short,
    power: formatRefraction({ sphere: lens.sphereD, cylinder: lens.cylinderD, axis: lens.axisDeg }),
    family: `${lens.maker} ${lens.familyName}`,
    curve: baseCurveMm.toFixed(1),
    diameter: lens.diameterMm?.toFixed(1) ?? '',
  });
  const more = [
    ...(lens.addBand ? [nameOfAdd(lens.addBand, (band) => translator('prescription')(`add.${band}`))] : []),
    ...(aim ? [eyes(`aim.${aim.sees}`, { cm: aim.cm ?? 0 })] : []),
  ];
  return [[line, ...more].join(' · ')];
}

/** The wearer's copy of a prescription in words. */
export function prescriptionPaper({ copy, wearer, practice, writtenAt, writtenBy }: CopyPaper): Paper {
  const print = translator('print');
  const purposes = translator('purposes');
  const { name, title, registerNumber } = copy.prescriber;
  return {
    language: 'en',
    title: print('copy'),
    from: print('from', { practice: practice.name, address: practice.address, telephone: practice.telephone }),
    wearer: print('wearer', { name: wearer.name, day: formatDay(wearer.birthDate), record: formatRecord(wearer.recordNumber) }),
    large: copy.eyes.flatMap(eyeLines),
    lines: [
      print('examined', { day: formatDay(copy.examinedOn) }),
      ...(copy.purpose === null ? [] : [print('purpose', { purpose: purposes(copy.purpose) })]),
      print('signed', {
        number: copy.number,
        issued: formatDay(copy.issuedOn),
        expires: formatDay(copy.expiresOn),
        prescriber: name,
        title,
        register: registerNumber,
      }),
    ],
    danger: { title: print('dangerTitle'), text: print('dangerDo', { telephone: practice.emergencyTelephone }) },
    written: print('written', { moment: formatMoment(writtenAt, practice.timeZone), name: writtenBy }),
  };
}
