import Papa from 'papaparse';
import { writeCase } from '../formats/case/write.ts';
import { rubricRows } from '../formats/table/write.ts';
import { rubricsHtml } from '../formats/table/writeHtml.ts';
import type { Platform } from '../intake/platform.ts';
import type { Finding } from '../model/finding.ts';
import type { Rubric } from '../model/rubric.ts';

export const RUBRIC_TARGETS = ['case1.0', 'csv', 'xlsx', 'html'] as const;
export type RubricTarget = (typeof RUBRIC_TARGETS)[number];

/** Writes rubrics as CASE 1.0, as a table, or as a page to read; names what the target has no place for. */
export async function writeRubrics(
  rubrics: readonly Rubric[],
  target: RubricTarget,
  platform: Platform,
  layout: 'wide' | 'long' = 'wide',
): Promise<{ bytes: Uint8Array; findings: readonly Finding[] }> {
  const encode = (text: string): Uint8Array => new TextEncoder().encode(text);
  switch (target) {
    case 'case1.0': {
      const { text, findings } = writeCase(rubrics);
      return { bytes: encode(text), findings };
    }
    case 'html':
      return { bytes: encode(rubricsHtml(rubrics)), findings: [] };
    case 'csv': {
      const { rows, findings } = rubricRows(rubrics, layout);
      // The mark tells spreadsheets that it is UTF-8.
      return {
        bytes: encode(`\uFEFF${Papa.unparse(rows as string[][], { newline: '\r\n' })}\r\n`),
        findings,
      };
    }
    case 'xlsx': {
      const { rows, findings } = rubricRows(rubrics, layout);
      return { bytes: await platform.writeSheet('Rubrics', rows), findings };
    }
  }
}
