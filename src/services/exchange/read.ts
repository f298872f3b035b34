import 'server-only';
import type { ReadDocument } from '../../core';
import { readFhir } from '../../formats/fhir/read';
import { readPrescriptions } from '../../formats/prescriptionCsv';
import { invalid, ok, type Result } from '../../lib/outcome';

export interface FileRead extends ReadDocument {
  readonly format: 'fhir' | 'csv';
}

/** A file by what is in it, not by its name: JSON is FHIR, anything else separated values. What cannot be read is said at the file. */
export function readFile(text: string): Result<FileRead> {
  if (/^\s*\uFEFF?\s*[{[]/.test(text)) {
    const read = readFhir(text);
    return read.ok ? ok({ ...read.value, format: 'fhir' }) : invalid('text', read.error.code, read.error.data);
  }
  const read = readPrescriptions(new TextEncoder().encode(text));
  return read.ok ? ok({ ...read.value, format: 'csv' }) : invalid('text', read.error.code, read.error.data);
}
