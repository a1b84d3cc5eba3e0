import {
  familiesOf,
  fingerprint,
  indexWords,
  interactionsOf,
  keyTexts,
  kindOf,
  opening,
  optionSets,
  optionText,
  originOfFields,
  totalPoints,
  readHolding,
  recognise,
  saidBy,
  stemText,
  type Holding,
  type Item,
  type Layer,
  type Tree,
  cut,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { FamilyListing, PackageSummary, StoredItem } from '../../shared/types.ts';
import { itemCodec } from '../store/documents/packages.ts';
import { insertContainers } from '../store/containers.ts';
import { write } from '../store/database.ts';
import { readStored } from '../store/files.ts';
import { insertItems } from '../store/items.ts';
import type { Known } from '../store/known.ts';
import { insertReading, releaseReadings, type ReadingOf, type ReadParts } from '../store/readings.ts';
import type { Progress } from './progress.ts';
import { putRightIn, type LayerDone } from './puttingRight.ts';

/** A file of the store, what is known of how to read such files, and the reading that is to come of it. */
export interface ReadInput extends Known {
  readonly sha256: string;
  readonly name: string;
  /** What was put right in it, and the ids of the steps that this came of. */
  readonly layer: Layer;
  readonly steps: readonly string[];
  readonly reading: ReadingOf;
}

/** What a reading came to; what was read stands in the database by then. */
export interface ReadResult {
  readonly summary: PackageSummary;
  /** How many things of it were put right. */
  readonly changed: number;
  readonly layer: LayerDone;
}

/** Items are kept so many at a time, so that other changes get in between. */
const KEPT_AT_ONCE = 100;

/** Reads a file, and keeps what was read: the one reading that screens and transfers share. */
export async function readTask(file: ReadInput, progress: Progress): Promise<ReadResult> {
  progress(`Opening ${file.name}`, 0, 0);
  const source = await readHolding(file.name, await readStored(file.sha256), nodePlatform, {
    rules: file.rules,
    layouts: file.layouts,
    known: file.known,
    said: saidBy(file.layer),
    onProgress: (done, total) => progress(`Reading ${file.name}`, done, total),
  });
  progress('Sorting items', 0, source.items.length);
  const { holding, putRight, layer } = putRightIn(source, file.layer);
  const { items, ...tree } = holding;
  const parts: ReadParts = {
    tree: forStore(tree),
    families: familiesIn(holding),
    putRight: { ...putRight, steps: file.steps },
  };
  await write(async (tx) => {
    await releaseReadings(tx, file.reading);
    await insertReading(tx, file.reading, parts);
    await insertContainers(tx, file.reading.id, tree);
  });
  for (let at = 0; at < items.length; at += KEPT_AT_ONCE) {
    const rows = items.slice(at, at + KEPT_AT_ONCE).map(storedItem);
    await write((tx) => insertItems(tx, file.reading.id, rows, at));
    progress('Storing items', at + rows.length, items.length);
  }
  return { summary: summaryOf(holding), changed: putRight.edited.length, layer };
}

const familiesIn = (holding: Holding): FamilyListing[] =>
  familiesOf(holding).map(({ id, title, varies, items }) => ({
    id,
    title,
    items: items.map((i) => i.id),
    varies,
  }));

/** What nobody understood is told by its start; the file has the rest. */
const LONGEST_UNREAD = 200;
const forStore = (tree: Tree): Tree =>
  tree.documents
    ? {
        ...tree,
        documents: tree.documents.map((d) => ({
          ...d,
          unread: d.unread.map((u) => ({ ...u, text: cut(u.text, LONGEST_UNREAD) })),
        })),
      }
    : tree;

/** The longest key that lists show, and the longest text an item is found by, in characters. */
const LONGEST_KEY = 80;
const LONGEST_SAID = 20_000;

function storedItem(item: Item): StoredItem {
  const recognised = recognise(item);
  const key = keyTexts(item, recognised).join(', ');
  const stem = stemText(item);
  const options = interactionsOf(item).flatMap((i) => optionSets(i).flatMap((set) => set.map(optionText)));
  const files = item.files.map((f) => f.path);
  return {
    nodeId: item.id,
    title: item.title,
    stem,
    kinds: kindOf(item),
    points: item.points,
    fingerprint: fingerprint(item),
    category: item.category,
    gradedByHand: recognised.shape.kind === 'manual',
    json: itemCodec.write(item),
    keyText: opening(key, LONGEST_KEY),
    says: indexed([item.title, stem, item.id, item.category ?? '', ...options, ...files].join(' ')),
    keyed: indexed(key),
  };
}

/** A text as the index takes it: its words and its pairs of characters, each once. */
function indexed(text: string): string {
  const { words, pairs } = indexWords(cut(text, LONGEST_SAID));
  return [...new Set([...words, ...pairs])].join(' ');
}

function summaryOf(holding: Holding): PackageSummary {
  const count = (severity: string): number => holding.findings.filter((f) => f.severity === severity).length;
  return {
    title: holding.title,
    format: holding.format,
    items: holding.items.length,
    points: totalPoints(holding.items),
    quizzes: holding.quizzes.length,
    banks: holding.banks.length,
    rubrics: holding.rubrics.length,
    errors: count('error'),
    warnings: count('warning'),
    notes: count('note'),
    origin: originOfFields(holding.items),
    looks: holding.documents?.flatMap((d) => (d.looks ? [d.looks] : [])),
  };
}
