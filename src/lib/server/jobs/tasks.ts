import type {
  ItemRow,
  PackageSummary,
  PouchRow,
  PouchTotals,
  StoredItem,
  Tick,
  Tree,
} from '../../shared/types.ts';
import {
  compareHoldings,
  fileReader,
  forecast,
  fingerprint,
  interactionsOf,
  keyTexts,
  nameOf,
  originOfFields,
  plainNumber,
  readHolding,
  recognise,
  selectFrom,
  stemText,
  writeHolding,
  type Chosen,
  type Comparison,
  type Finding,
  type Holding,
  type Item,
  type ReadingRule,
  type Target,
  type TableLayout,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { readFile } from 'node:fs/promises';

/** What runs in worker threads: plain values in, plain values out, no database. */

export type Progress = (step: string, done: number, total: number) => void;

export interface FileRefInput {
  /** Confirmed readings of private fields. */
  readonly rules: readonly ReadingRule[];
  readonly layouts: readonly TableLayout[];
  readonly path: string;
  readonly name: string;
}

export interface ReadResult {
  readonly tree: Tree;
  readonly summary: PackageSummary;
  readonly rows: readonly StoredItem[];
}

export async function readTask(file: FileRefInput, progress: Progress): Promise<ReadResult> {
  const holding = await load(file, progress);
  progress('Sorting items', 0, holding.items.length);
  const { items, ...tree } = holding;
  return { tree, summary: summarise(holding), rows: items.map(storedItem) };
}

/** Trees this thread has read lately: the steps of a transfer take the same ones one after the other. */
const lately = new Map<string, Holding>();
const KEPT_TREES = 4;
const KEPT_ITEMS = 2000;

export async function load(file: FileRefInput, progress: Progress): Promise<Holding> {
  const key = JSON.stringify([file.path, file.name, file.rules, file.layouts]);
  const held = lately.get(key);
  if (held) {
    lately.delete(key);
    lately.set(key, held);
    return held;
  }
  progress(`Opening ${file.name}`, 0, 0);
  const bytes = await readFile(file.path);
  const holding = await readHolding(file.name, bytes, nodePlatform, {
    rules: file.rules,
    layouts: file.layouts,
    onProgress: (done, total) => progress(`Reading ${file.name}`, done, total),
  });
  if (holding.items.length <= KEPT_ITEMS) lately.set(key, holding);
  if (lately.size > KEPT_TREES) lately.delete(lately.keys().next().value!);
  return holding;
}

function storedItem(item: Item): StoredItem {
  return {
    nodeId: item.id,
    title: item.title,
    stem: stemText(item),
    kinds: kindOf(item),
    points: item.points,
    fingerprint: fingerprint(item),
    category: item.category,
    json: JSON.stringify(item),
  };
}

/** One word for how an item is answered; `choice` tells one answer from several. */
export function kindOf(item: Item): string {
  const kinds = interactionsOf(item).map((i) => {
    const response = item.responses.find((r) => r.id === i.responseId);
    switch (i.kind) {
      case 'choice':
        return response?.cardinality === 'multiple' ? 'choices' : 'choice';
      case 'textEntry':
        return response?.baseType === 'float' || response?.baseType === 'integer' ? 'number' : 'text';
      case 'extendedText':
        return 'essay';
      default:
        return i.kind;
    }
  });
  const distinct = [...new Set(kinds)];
  return distinct.length === 0 ? 'none' : distinct.length === 1 ? distinct[0]! : 'several';
}

function summarise(holding: Holding): PackageSummary {
  const count = (severity: string): number => holding.findings.filter((f) => f.severity === severity).length;
  return {
    title: holding.title,
    format: holding.format,
    items: holding.items.length,
    points: Number(holding.items.reduce((sum, i) => sum + i.points, 0).toPrecision(12)),
    quizzes: holding.quizzes.length,
    banks: holding.banks.length,
    rubrics: holding.rubrics.length,
    errors: count('error'),
    warnings: count('warning'),
    notes: count('note'),
    origin: originOfFields(holding.items),
  };
}

export const chosenFrom = (ticks: readonly Tick[]): Chosen => {
  const of = (kind: Tick['kind']): Set<string> =>
    new Set(ticks.filter((t) => t.kind === kind).map((t) => t.nodeId));
  return {
    quizzes: of('quiz'),
    banks: of('bank'),
    items: of('item'),
    links: of('link'),
    rubrics: of('rubric'),
    without: of('without'),
    withoutRubrics: of('without-rubric'),
  };
};

export interface SendResult {
  /** One file, or a series. */
  readonly contents: readonly Uint8Array[];
  readonly items: number;
  readonly points: number;
  readonly findings: readonly Finding[];
}

export async function sendTask(
  file: FileRefInput,
  ticks: readonly Tick[],
  target: Target,
  progress: Progress,
): Promise<SendResult> {
  const holding = await load(file, progress);
  const { holding: chosen } = selectFrom(holding, chosenFrom(ticks));
  progress('Writing the package', 0, chosen.items.length);
  const reader = await fileReader(file.name, await readFile(file.path), nodePlatform);
  const { packages, findings } = writeHolding(chosen, target, reader);
  return { contents: packages, items: chosen.items.length, points: total(chosen.items), findings };
}

/** What the target cannot carry of what is ticked. */
export async function forecastTask(
  file: FileRefInput,
  ticks: readonly Tick[],
  target: Target,
  progress: Progress,
): Promise<readonly Finding[]> {
  const { holding } = selectFrom(await load(file, progress), chosenFrom(ticks));
  progress('Looking ahead', 0, holding.items.length);
  return forecast(holding, target);
}

export const total = (items: readonly Item[]): number =>
  Number(items.reduce((sum, i) => sum + i.points, 0).toPrecision(12));

export interface CompareResult {
  readonly comparison: Comparison;
  readonly left: readonly PouchRow[];
  readonly right: readonly PouchRow[];
  readonly totals: { readonly left: PouchTotals; readonly right: PouchTotals };
}

/** Compares what was chosen of the source with everything in the arrived file. */
export async function compareTask(
  source: FileRefInput,
  ticks: readonly Tick[],
  arrived: FileRefInput,
  progress: Progress,
): Promise<CompareResult> {
  const planned = selectFrom(await load(source, progress), chosenFrom(ticks)).holding;
  const there = await load(arrived, progress);
  progress('Comparing', 0, planned.items.length);
  // Links that the target has no place for were listed as losses.
  const comparison = compareHoldings(planned, there);
  return {
    comparison,
    left: planned.items.map(pouchRow),
    right: there.items.map(pouchRow),
    totals: { left: totalsOf(planned), right: totalsOf(there) },
  };
}

export function pouchRow(item: Item, at: number): PouchRow {
  return {
    id: item.id,
    n: at + 1,
    name: nameOf(item),
    kind: kindOf(item),
    key: shortKey(item),
    points: item.points,
  };
}

/** The key in a few characters: letters for choices, the value for numbers, the first answer for text. */
function shortKey(item: Item): string {
  const recognised = recognise(item);
  const letters = interactionsOf(item).flatMap((i) =>
    i.kind === 'choice'
      ? i.choices.flatMap((c, at) =>
          (recognised.key[i.responseId] ?? []).includes(c.id) ? [letter(at)] : [],
        )
      : [],
  );
  if (letters.length > 0) return letters.join(', ');
  const { shape } = recognised;
  if (shape.kind === 'numeric' && shape.tolerance && shape.stated) {
    const half = Number(((shape.tolerance.high - shape.tolerance.low) / 2).toPrecision(6));
    return `${plainNumber(shape.value)} ± ${plainNumber(half)}`;
  }
  return (keyTexts(item, recognised)[0] ?? '').slice(0, 24);
}

export const letter = (at: number): string => (at < 26 ? String.fromCharCode(65 + at) : String(at + 1));

export function totalsOf(holding: Holding): PouchTotals {
  return {
    items: holding.items.length,
    points: total(holding.items),
    quizzes: holding.quizzes.length,
    banks: holding.banks.length,
    draws: holding.quizzes.reduce((sum, q) => sum + q.sections.filter((s) => s.draw !== null).length, 0),
    files: holding.files.length,
    rubrics: holding.rubrics.length,
  };
}

export type { ItemRow };
