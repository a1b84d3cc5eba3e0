import {
  applyEdits,
  evaluate,
  itemsAlone,
  plainNumber,
  type Answers,
  type Edit,
  type Item,
} from '@alforja/core';
import type { WholeItem } from '../../shared/edits.ts';
import { viewItem } from '../../shared/itemView.ts';
import type { ItemScore, ItemView } from '../../shared/types.ts';
import { itemAt } from '../store/items.ts';
import { packageById, packageFile } from '../store/packages.ts';

/** Single items as pages show and try them: their programs are run here, whatever they ask for. */

export interface ItemAsked {
  readonly packageId: string;
  /** Its place in the package, from 0. */
  readonly seq: number;
}

async function itemOf({ packageId, seq }: ItemAsked): Promise<Item | null> {
  const held = await packageFile(packageId);
  return held?.readingId ? itemAt(held.readingId, seq) : null;
}

/** An item with what is right in it and how it scores, as JSON: some are very long. Null where there is none. */
export async function itemTask({ packageId, seq }: ItemAsked): Promise<string | null> {
  const held = await packageById(packageId);
  const item = held?.readingId ? await itemAt(held.readingId, seq) : null;
  return item && held?.tree ? JSON.stringify(viewItem(item, held.tree.findings) satisfies ItemView) : null;
}

export interface WholeAsked extends Pick<ItemAsked, 'seq'> {
  readonly readingId: string;
  /** The parts of it that were changed. */
  readonly changed: readonly string[];
  /** What was changed since that reading: whoever goes on from there may not start from what was before. */
  readonly pending: readonly Edit[];
}

/** Items as they stand once what waits has been taken in; one that was taken out is not among them. */
export function withPending(read: readonly Item[], pending: readonly Edit[]): readonly Item[] {
  const about = new Set(read.map((item) => item.id));
  const theirs = pending.filter((e) => e.node !== undefined && about.has(e.node));
  return applyEdits(itemsAlone(read), theirs).holding.items;
}

/** An item with its scoring, to be changed where it stands, and what of it was changed, as JSON. */
export async function wholeTask({ readingId, seq, changed, pending }: WholeAsked): Promise<string | null> {
  const read = await itemAt(readingId, seq);
  if (!read) return null;
  const item = withPending([read], pending)[0] ?? read;
  return JSON.stringify({ item, changed } satisfies WholeItem);
}

export interface ScoreAsked extends ItemAsked {
  readonly answers: Answers;
}

/** What one set of answers scores, and which feedback it brings up. */
export async function scoreTask(asked: ScoreAsked): Promise<ItemScore | null> {
  const item = await itemOf(asked);
  return item && scored(item, asked.answers);
}

function scored(item: Item, answers: Answers): ItemScore {
  const result = evaluate(item, answers);
  const feedback = item.feedback.filter(
    (f) => (result.outcomes[f.outcome]?.values.includes(f.id) ?? false) === f.show,
  );
  return { score: plainNumber(result.score), maximum: plainNumber(item.points), feedback };
}
