import {
  beside,
  familiesOf,
  fingerprint,
  indexWords,
  interactionsOf,
  keyTexts,
  newPurse,
  kindOf,
  opening,
  optionSets,
  optionText,
  originOfFields,
  totalPoints,
  readHolding,
  recognise,
  saidBy,
  shortKey,
  stemText,
  type Holding,
  type Item,
  type Layer,
  type Tree,
  cut,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { FamilyListing, PackageSummary, StoredItem } from '../../shared/types.ts';
import { itemCodec, itemFilesCodec } from '../store/documents/packages.ts';
import { insertContainers } from '../store/containers.ts';
import { write } from '../store/database.ts';
import { readStored } from '../store/files.ts';
import { insertItems, lineName } from '../store/items.ts';
import type { Known } from '../store/known.ts';
import { announceSubject } from '../store/news.ts';
import {
  beginReading,
  noteFirst,
  finishReading,
  releaseReadings,
  type ReadingOf,
  type ReadParts,
} from '../store/readings.ts';
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
const KEPT_AT_ONCE = 200;

/** Reads a file, and keeps what was read: the one reading that screens and transfers share. */
export async function readTask(file: ReadInput, progress: Progress): Promise<ReadResult> {
  progress(`Opening ${file.name}`, 0, 0);
  const kept = new ItemRows(file.reading.id, progress);
  await write(async (tx) => {
    await releaseReadings(tx, file.reading);
    await beginReading(tx, file.reading);
  });
  // What is put right afterwards is kept as it is then.
  const plain = file.layer.length === 0;
  const source = await readHolding(file.name, await readStored(file.sha256), nodePlatform, {
    rules: file.rules,
    layouts: file.layouts,
    known: file.known,
    said: saidBy(file.layer),
    onFirst: (items) => tellFirst(file.reading, items, () => progress(`Reading ${file.name}`, 0, 0)),
    onProgress: (done, total) => progress(`Reading ${file.name}`, done, total),
    ...(plain ? { onItem: (item, asked, of) => kept.add(item, asked(item).print, of) } : {}),
  });
  progress('Sorting items', 0, source.items.length);
  const { holding, putRight, layer } = putRightIn(source, file.layer);
  const { items, ...tree } = holding;
  if (!plain)
    for (const item of items) {
      const wait = kept.add(item, fingerprint(item), items.length);
      if (wait) await wait;
    }
  await kept.flush();
  const parts: ReadParts = {
    tree: forStore(tree),
    families: familiesIn(holding),
    putRight: { ...putRight, steps: file.steps },
  };
  await write(async (tx) => {
    await finishReading(tx, file.reading.id, parts);
    await insertContainers(tx, file.reading.id, tree);
  });
  return { summary: summaryOf(holding), changed: putRight.edited.length, layer };
}

/** Items that somebody who waits is shown before all is read. */
const FIRST_SHOWN = 60;

/** Shows whoever waits what a package begins with. @param told that it has been written down */
async function tellFirst(
  { id, packageId }: ReadingOf,
  items: readonly Item[],
  told: () => void,
): Promise<void> {
  const first = items.slice(0, FIRST_SHOWN).map((item) => ({
    name: lineName({ stem: stemText(item), title: item.title }),
    kind: kindOf(item),
  }));
  await write(async (tx) => {
    await noteFirst(tx, id, first);
    await announceSubject(tx, packageId);
  });
  told();
}

/** Items of a reading on their way into their rows. */
class ItemRows {
  readonly #readingId: string;
  /** What lists show is found out beside the reading, and takes nothing from it. */
  readonly #purse = newPurse();
  readonly #progress: Progress;
  #waiting: StoredItem[] = [];
  #stored = 0;

  constructor(readingId: string, progress: Progress) {
    this.#readingId = readingId;
    this.#progress = progress;
  }

  /** Takes the next of so many items. @returns what has to be waited for before the one after it */
  add(item: Item, print: string, of: number): Promise<void> | undefined {
    this.#waiting.push(beside(this.#purse, () => storedItem(item, print)));
    if (this.#waiting.length < KEPT_AT_ONCE) return undefined;
    this.#progress('Storing items', this.#stored + this.#waiting.length, of);
    return this.flush();
  }

  async flush(): Promise<void> {
    const rows = this.#waiting;
    this.#waiting = [];
    await write((tx) => insertItems(tx, this.#readingId, rows, this.#stored));
    this.#stored += rows.length;
  }
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

function storedItem(item: Item, print: string): StoredItem {
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
    fingerprint: print,
    category: item.category,
    gradedByHand: recognised.shape.kind === 'manual',
    json: itemCodec.write(item),
    files: item.files.length > 0 ? itemFilesCodec.write(item.files) : '',
    keyText: opening(key, LONGEST_KEY),
    shortKey: shortKey(item, recognised),
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
