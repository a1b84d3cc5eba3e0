import type { ContentNode } from '../model/content.ts';
import { element, text as textNode } from '../model/make.ts';
import { mergeRuns, type Look, type Run, type TextRun } from './block.ts';

/** Stands in a text for a picture or a formula: one character, so that runs can be cut by their text. */
export const OBJECT = '\uFFFC';

/** Runs as one text; a break is a line feed. */
export const textOfRuns = (runs: readonly Run[]): string =>
  runs.map((r) => (r.kind === 'text' ? r.text : r.kind === 'break' ? '\n' : OBJECT)).join('');

/** The runs of a part of their text, by its offsets. */
export function sliceRuns(runs: readonly Run[], from: number, to = Infinity): Run[] {
  const out: Run[] = [];
  let at = 0;
  for (const run of runs) {
    const length = run.kind === 'text' ? run.text.length : 1;
    const [start, end] = [Math.max(from - at, 0), Math.min(to - at, length)];
    if (start < end) out.push(run.kind === 'text' ? { ...run, text: run.text.slice(start, end) } : run);
    at += length;
  }
  return out;
}

/** Runs without white space at either end. */
export function trimRuns(runs: readonly Run[]): Run[] {
  const text = textOfRuns(runs);
  const start = text.length - text.trimStart().length;
  return sliceRuns(runs, start, start + text.trim().length);
}

/** Runs cut at their breaks. */
export function linesOfRuns(runs: readonly Run[]): Run[][] {
  const lines: Run[][] = [[]];
  for (const run of runs)
    if (run.kind === 'break') lines.push([]);
    else lines.at(-1)!.push(run);
  return lines;
}

/** The same runs, looking otherwise. */
export const restyled = (runs: readonly Run[], look: (before: Look) => Look): Run[] =>
  mergeRuns(runs.map((r) => (r.kind === 'text' ? { ...r, look: look(r.look) } : r)));

const letters = (run: TextRun): number => run.text.replace(/[\s\p{P}]/gu, '').length;

/** The share of letters and digits that look a certain way, 0 to 1; 0 where there are none. */
export function shareOf(runs: readonly Run[], looks: (look: Look) => boolean): number {
  let all = 0;
  let such = 0;
  for (const run of runs) {
    if (run.kind !== 'text') continue;
    const count = letters(run) || (run.text.trim() === '' ? 0 : 0.01);
    all += count;
    if (looks(run.look)) such += count;
  }
  return all === 0 ? 0 : such / all;
}

/** Content that students read, of runs: emphasis stays, colours and sizes do not. */
export function contentOfRuns(runs: readonly Run[]): ContentNode[] {
  return runs.map((run): ContentNode => {
    switch (run.kind) {
      case 'break':
        return element('br');
      case 'math':
        return run.node;
      case 'picture':
        return element('img', [], {
          src: run.path,
          alt: run.alt,
          ...(run.width === null ? {} : { width: String(Math.round(run.width)) }),
          ...(run.height === null ? {} : { height: String(Math.round(run.height)) }),
        });
      case 'text':
        return emphasised(run);
    }
  });
}

function emphasised({ text, look }: TextRun): ContentNode {
  let node: ContentNode = textNode(text);
  if (look.script) node = element(look.script, [node]);
  if (text.trim() === '' && !look.underline) return node;
  if (look.strike) node = element('s', [node]);
  if (look.underline) node = element('u', [node]);
  if (look.italic) node = element('i', [node]);
  if (look.bold) node = element('b', [node]);
  return node;
}
