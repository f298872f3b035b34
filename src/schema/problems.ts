import type { z } from 'zod';
import type { FieldProblem, Problem, ProblemData } from '../lib/outcome';

/** A Zod failure in the house's one vocabulary: each issue's message is a code, its path leads to the input. */
export function toProblem(error: z.ZodError): Problem {
  const fields = error.issues.map((issue): FieldProblem => {
    const params = issue.code === 'custom' ? (issue.params as { data?: ProblemData; repairs?: readonly string[] } | undefined) : undefined;
    const code = /^[a-z][A-Za-z0-9_]*$/.test(issue.message) ? issue.message : 'notUnderstood';
    return {
      path: issue.path.map(String),
      code,
      ...(params?.data ? { data: params.data } : {}),
      ...(params?.repairs ? { repairs: params.repairs } : {}),
    };
  });
  return { kind: 'invalid', fields };
}
