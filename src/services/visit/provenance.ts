import 'server-only';
import { provenanceInVisit, type ProvenanceFile } from '../../core';
import type { VisitReading } from './reading';

/** What it is known from which lenses are worn, as this visit sees it. */
export const provenanceOf = async (reading: VisitReading): Promise<ProvenanceFile> =>
  provenanceInVisit({ ...(await reading.supply()), facts: await reading.facts() });
