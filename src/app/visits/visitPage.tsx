import type { ComponentType, ReactNode } from 'react';
import { stepSlug, type VisitPage as PageName } from '@/core';
import { VisitPage } from '@/features/visit/shell/VisitPage';
import { readVisit } from '@/services/visit/queries';
import { readPage } from '../access';
import { Refused } from '../Refused';

/** A page of a visit, at its own address so that its script is its own: what it reads, and the step that shows it. */
export const visitPage = (page: Exclude<PageName, 'print'>, Step: ComponentType) =>
  async function Page({ params }: { readonly params: Promise<{ id: string }> }): Promise<ReactNode> {
    const { id } = await params;
    const read = await readPage(readVisit, { visitId: id, page }, `/visits/${id}/${stepSlug(page)}`);
    if (!read.ok) return <Refused problem={read.error} />;
    return (
      <VisitPage page={page} session={read.value.session} part={JSON.stringify(read.value.part)}>
        <Step />
      </VisitPage>
    );
  };
