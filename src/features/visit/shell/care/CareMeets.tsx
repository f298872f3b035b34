'use client';
import { caredFor, careWarning, keptIn } from '@/core';
import { CareWarning } from '../../../common/CareWarning';
import { useVisit } from '../VisitProvider';

/** Wherever the lenses of a visit meet what this wearer keeps lenses in. */
export function CareMeets() {
  const { record, hasLibrary } = useVisit();
  if (!hasLibrary) return null;
  const { materials } = caredFor({ lenses: record.lenses, families: record.ofLenses, onEye: record.facts.onEye, prescriptions: record.prescriptions });
  const warning = careWarning(keptIn(record.careSystems, record.health.aftercare), record.careProducts, materials, record.carePairs);
  return warning ? (
    <div className="px-6 border-b border-rule">
      <CareWarning warning={warning} />
    </div>
  ) : null;
}
