import type { Run } from '../document/block.ts';
import { sliceRuns, trimRuns } from '../document/runs.ts';
import { labelsOf, labelText, type Label } from './labels.ts';
import type { Line } from './lines.ts';

/** Labels within a line, and what stands behind one. */

export interface InlineLabel {
  readonly label: Label;
  readonly at: number;
  readonly sign: string;
}

/** Labels of a shape within a text, counted on from an ordinal without a gap. */
export function inlineLabels(text: string, shape: string, first: number): InlineLabel[] {
  const out: InlineLabel[] = [];
  let wanted = first;
  // Most lines hold none, and this is asked of every line under every hypothesis.
  if (!text.includes(labelText(shape, first))) return out;
  for (const gap of text.matchAll(/(?:^|(?<!\s)\s+|(?<=[;,.。、]))(?=\S)/gu)) {
    const at = gap.index + gap[0].length;
    const sign = /^[*✓✔√](?=[([（]?[\p{L}\p{Nd}]{1,3}[.)\]])/u.exec(text.slice(at, at + 8))?.[0] ?? '';
    const label = labelsOf(text.slice(at + sign.length, at + sign.length + 24)).find(
      (l) => l.shape === shape && l.ordinal === wanted,
    );
    if (!label) continue;
    out.push({ label, at, sign });
    wanted += 1;
  }
  return out;
}

/** What stands behind a line's label, cut once: hypotheses share it. */
const cuts = new WeakMap<Line, Map<number, readonly Run[]>>();
export function behind(line: Line, from: number): readonly Run[] {
  let ofLine = cuts.get(line);
  if (!ofLine) cuts.set(line, (ofLine = new Map()));
  let runs = ofLine.get(from);
  if (!runs) ofLine.set(from, (runs = trimRuns(from > 0 ? sliceRuns(line.runs, from) : line.runs)));
  return runs;
}
