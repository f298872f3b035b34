import { proposalOf, proposeVisit, type VisitProposal, type WearerFile } from '@/core';
import type { SessionContext } from '@/services/sessionContext';

/** The kind of visit that is proposed for a wearer today. */
export const proposedFor = (file: WearerFile, { today, practice, settings }: SessionContext): VisitProposal =>
  proposeVisit(proposalOf(file, today, practice.timeZone), settings.examinedMonths);
