import type { NextRequest, NextResponse } from 'next/server';
import { VISIT_PAGES } from '@/core';
import { COMMANDS, isCommandName } from '@/services';
import { readChanged } from '@/services/visit/slices';
import { answerService } from '../../answerService';

/** Every command by its name. A page of a visit names itself, and is answered with what of it has changed. */
export async function POST(request: NextRequest, { params }: { params: Promise<{ name: string }> }): Promise<NextResponse> {
  const { name } = await params;
  const page = VISIT_PAGES.find((p) => p === request.headers.get('x-visit-page'));
  return answerService(request, isCommandName(name) ? COMMANDS[name] : null, page && ((context) => readChanged(context, page)));
}
