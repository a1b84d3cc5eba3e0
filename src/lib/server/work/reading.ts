import {
  familiesOf,
  fingerprint,
  kindOf,
  originOfFields,
  totalPoints,
  readHolding,
  saidBy,
  stemText,
  type Holding,
  type Item,
  type Layer,
  type Tree,
  cut,
} from '@alforja/core';
import { itemHolder } from '@alforja/core/itemHolder';
import { nodePlatform } from '@alforja/core/node';
import type { FamilyListing, PackageSummary } from '../../shared/types.ts';
import { insertContainers } from '../store/containers.ts';
import { write } from '../store/database.ts';
import { readStored } from '../store/files.ts';
import { lineName } from '../store/items.ts';
import type { JobOwner } from '../store/jobs.ts';
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
import { LARGE, Storing } from './storing.ts';

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

/** Where something is put right, more stay as trees: edits look into many of them. */
const LARGE_WITH_EDITS = 20_000;

/**
 * Reads a file, and keeps what was read: the one reading that screens and transfers share.
 * @param by the job that it is done for
 */
export async function readTask(
  file: ReadInput,
  progress: Progress,
  by: JobOwner | null = null,
): Promise<ReadResult> {
  const storing = new Storing(file.reading.id, by, progress);
  try {
    return await readInto(storing, file, progress);
  } finally {
    await storing.end();
  }
}

async function readInto(storing: Storing, file: ReadInput, progress: Progress): Promise<ReadResult> {
  progress(`Opening ${file.name}`, 0, 0);
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
    holder: plain ? itemHolder(LARGE, storing) : itemHolder(LARGE_WITH_EDITS),
    ...(plain
      ? { onItem: (item, { asked, ...told }) => storing.add(item, { ...told, print: asked(item).print }) }
      : {}),
  });
  progress('Sorting items', 0, source.items.length);
  const { holding, putRight, layer } = putRightIn(source, file.layer);
  const { items, ...tree } = holding;
  if (!plain)
    for (const item of items) {
      const told = { print: fingerprint(item), of: items.length, altered: true };
      const wait = storing.add(item, told);
      if (wait) await wait;
    }
  await storing.finish();
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
