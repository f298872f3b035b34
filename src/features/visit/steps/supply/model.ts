import type { SupplySource } from '@/core';
import type { VisitRecord } from '../../shell/visitData';

export function sourceOf(record: VisitRecord): SupplySource {
  return {
    file: record,
    today: record.session.today,
    marginDays: record.session.settings.reorderMarginDays,
    family: (code) => record.ofLenses.find((f) => f.code === code) ?? null,
  };
}
