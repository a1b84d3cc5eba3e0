import { compareHoldings, type Comparison, type Difference, type Holding } from '@alforja/core';
import { document as qti12 } from '../../../demo/qti12.ts';
import { NS21, read, readZip, type Files } from '../../support/read.ts';

/** Items of QTI 1.2 from what stands inside each. */
export const items12 = (...inside: readonly string[]): string =>
  qti12(inside.map((xml, at) => `<item ident="i${at + 1}" title="Item ${at + 1}">${xml}</item>`).join(''));

/** One item of QTI 2.1 from what stands inside it. */
export const item21 = (inside: string, attributes = ''): string =>
  `<assessmentItem ${NS21} identifier="i1" title="Item 1" adaptive="false" timeDependent="false" ${attributes}>${inside}</assessmentItem>`;

export const material = (html: string): string =>
  `<material><mattext texttype="text/html">${html.replace(/&/gu, '&amp;').replace(/</gu, '&lt;')}</mattext></material>`;

const held = (side: string | Files): Promise<Holding> =>
  typeof side === 'string' ? read(side) : readZip(side);

export async function compared(from: string | Files, to: string | Files): Promise<Comparison> {
  const [a, b] = await Promise.all([held(from), held(to)]);
  return compareHoldings(a, b);
}

/** What differs of the first pair of items. */
export const differences = async (from: string | Files, to: string | Files): Promise<readonly Difference[]> =>
  (await compared(from, to)).pairs[0]!.differences;

export const facets = async (from: string | Files, to: string | Files): Promise<string[]> =>
  (await differences(from, to)).map((d) => d.facet);
