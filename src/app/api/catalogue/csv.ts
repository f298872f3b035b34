import 'server-only';

/** A CSV file to be saved, never shown by the browser. */
export const csvResponse = (csv: string, fileName: string): Response =>
  new Response(csv, {
    headers: {
      'content-type': 'text/csv; charset=utf-8',
      'content-disposition': `attachment; filename="${fileName}"`,
      'cache-control': 'private, no-store',
      'x-content-type-options': 'nosniff',
    },
  });
