import type { NextRequest, NextResponse } from 'next/server';
import { isQueryName, QUERIES } from '@/services';
import { answerService } from '../../answerService';

/** Every query by its name. */
export async function POST(request: NextRequest, { params }: { params: Promise<{ name: string }> }): Promise<NextResponse> {
  const { name } = await params;
  return answerService(request, isQueryName(name) ? QUERIES[name] : null);
}
