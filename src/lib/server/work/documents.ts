import {
  blocksSeen,
  explainDocuments,
  kindOf,
  layoutChoices,
  looksOfDocument,
  NO_LABELS,
  saidBy,
  sayLayout,
  speak,
  totalPoints,
  type Finding,
  type Item,
  type Layer,
  type RecognisedDocument,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { viewKey } from '../../shared/itemView.ts';
import type { DocumentLine, DocumentShown, DocumentsView, ReadItem } from '../../shared/documents.ts';
import { readStored } from '../store/files.ts';
import { knownReadings } from '../store/known.ts';
import { packageFile } from '../store/packages.ts';

/** What is wanted of the documents of a package. */
export interface DocumentsAsked {
  readonly packageId: string;
  /** The one to show; the first where it is null or there is none of that name. */
  readonly path: string | null;
  readonly layer: Layer;
}

/** The documents of a package beside what is read from them; null where it has none. */
export async function documentsTask({
  packageId,
  path,
  layer,
}: DocumentsAsked): Promise<DocumentsView | null> {
  const held = await packageFile(packageId);
  if (!held) return null;
  const said = saidBy(layer);
  const seen = await explainDocuments(held.name, await readStored(held.sha256), nodePlatform, {
    ...(await knownReadings()),
    said,
  });
  const shown = seen.find((s) => s.recognised.document.path === path) ?? seen[0];
  if (!shown) return null;
  const blocks = said.byPath.get(shown.recognised.document.path)?.blocks ?? new Map();
  return { documents: seen.map(lineOf), shown: shownOf(shown, blocks) };
}

/** A page shows so many; a test bank of five thousand questions has fewer. */
const MOST_BLOCKS = 40_000;

const itemsOf = ({ built }: RecognisedDocument): Item[] => built.banks.flatMap((b) => [...b.items]);

function lineOf(seen: RecognisedDocument): DocumentLine {
  const { recognised, built } = seen;
  const items = itemsOf(seen);
  return {
    path: recognised.document.path,
    banks: built.banks.map((b) => b.title),
    items: items.length,
    points: totalPoints(items),
    keyed: recognised.items.filter((i) => recognised.keys.has(i)).length,
    unsure: new Set(built.findings.flatMap((f) => (f.code === 'key-unsure' ? [f.where.node] : []))).size,
    unread: built.unread.reduce((sum, u) => sum + u.to - u.from + 1, 0),
    by: recognised.by,
    misfit: recognised.misfit !== null,
    sure: recognised.layout.sure,
  };
}

function shownOf(
  seen: RecognisedDocument,
  said: ReadonlyMap<number, DocumentShown['blocks'][number]['said']>,
): DocumentShown {
  const { recognised, built } = seen;
  const { cut } = recognised.runnerUp ?? {};
  const blocks = blocksSeen(recognised, built);
  const shownBlocks = blocks.slice(0, MOST_BLOCKS);
  const met = new Set(shownBlocks.flatMap((b) => b.item ?? []));
  return {
    path: recognised.document.path,
    layout: recognised.layout,
    by: recognised.by,
    runnerUp: cut
      ? sayLayout({
          ...recognised.layout,
          question: cut.question ?? NO_LABELS,
          choice: cut.choices.join(' | ') || NO_LABELS,
        })
      : null,
    choices: layoutChoices(recognised),
    looks: looksOfDocument(recognised),
    blocks: shownBlocks.map((b) => ({ ...b, said: said.get(b.n) ?? null })),
    more: blocks.length - shownBlocks.length,
    items: itemsOf(seen).flatMap((item) => (met.has(item.id) ? [readItem(item, built.findings)] : [])),
  };
}

/** A key that is not sure is told at its item; that nothing says points is told once above all. */
const readItem = (item: Item, findings: readonly Finding[]): ReadItem => ({
  id: item.id,
  kind: kindOf(item),
  points: item.points,
  category: item.category,
  body: item.body,
  responses: item.responses,
  ...viewKey(item),
  doubts: findings
    .filter((f) => f.where.node === item.id && f.code !== 'points-assumed')
    .map((f) => speak(f).message),
});
