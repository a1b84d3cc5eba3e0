import type { State } from '@alforja/core';
import type { BlockView, DocumentShown, ReadItem } from '$lib/shared/documents';

/** How a row stands: what is in a question for sure, what may be doubted, what nobody understood, what was said by hand. */
export type Standing = 'read' | 'unsure' | 'not read' | 'by hand';

/** Blocks that became one thing, and that thing. */
export interface DocumentRow {
  readonly key: string;
  readonly blocks: readonly BlockView[];
  readonly as: BlockView['as'];
  readonly item: ReadItem | null;
  /** The item has blocks further up already. */
  readonly goesOn: boolean;
  /** The item's number among those read, from 1. */
  readonly number: number;
  readonly standing: Standing;
}

export function documentRows({ blocks, items }: Pick<DocumentShown, 'blocks' | 'items'>): DocumentRow[] {
  const byId = new Map(items.map((item, at) => [item.id, { item, number: at + 1 }]));
  const rows: { blocks: BlockView[]; as: BlockView['as']; item: string | null }[] = [];
  for (const block of blocks) {
    const last = rows.at(-1);
    const same = last && last.as === block.as && last.item === block.item;
    if (same && block.as !== 'unread') last.blocks.push(block);
    else rows.push({ blocks: [block], as: block.as, item: block.item });
  }
  const met = new Set<string>();
  return rows.map((row) => {
    const found = row.item === null ? undefined : byId.get(row.item);
    const goesOn = row.item !== null && met.has(row.item);
    if (row.item !== null) met.add(row.item);
    const item = found?.item ?? null;
    return {
      key: `b${row.blocks[0]!.n}`,
      blocks: row.blocks,
      as: row.as,
      item,
      goesOn,
      number: found?.number ?? 0,
      standing: standingOf(row.as, row.blocks, goesOn ? null : item),
    };
  });
}

function standingOf(
  as: BlockView['as'],
  blocks: readonly BlockView[],
  item: Pick<ReadItem, 'doubts'> | null,
): Standing {
  if (as === 'unread') return 'not read';
  if (item && item.doubts.length > 0) return 'unsure';
  return blocks.some((b) => b.said !== null) ? 'by hand' : 'read';
}

/** The stitch that a standing is shown by. */
export const STITCHES: Readonly<Record<Standing, State>> = {
  read: 'intact',
  unsure: 'altered',
  'not read': 'missing',
  'by hand': 'intact',
};
