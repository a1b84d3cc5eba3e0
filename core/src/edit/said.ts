import type { Said } from '../layout/confirmed.ts';
import type { HandRole } from '../layout/hand.ts';
import type { Layout } from '../layout/layout.ts';
import { Edit } from './schema.ts';

/** What a layer says of how its source's documents are to be read, the later over the earlier. */
export function saidBy(layer: readonly unknown[]): Said {
  let series: Layout | null = null;
  const byPath = new Map<string, { layout: Layout | null; blocks: Map<number, HandRole> }>();
  for (const given of layer) {
    if (!isReading(given)) continue;
    const edit = Edit.safeParse(given).data;
    if (edit?.op !== 'read-as' && edit?.op !== 'block') continue;
    if (edit.path === undefined) {
      if (edit.op === 'read-as') series = edit.to;
      continue;
    }
    const of = byPath.get(edit.path) ?? { layout: null, blocks: new Map<number, HandRole>() };
    byPath.set(edit.path, of);
    if (edit.op === 'read-as') of.layout = edit.to;
    else if (edit.to === null) of.blocks.delete(edit.block);
    else of.blocks.set(edit.block, edit.to);
  }
  return { series, byPath };
}

/** Whether an edit says how a document is to be read: it holds before all others are applied. */
export const isReading = (given: unknown): boolean =>
  typeof given === 'object' &&
  given !== null &&
  'op' in given &&
  (given.op === 'read-as' || given.op === 'block');
