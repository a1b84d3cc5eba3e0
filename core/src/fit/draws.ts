import type { Draw, Section } from '../model/holding.ts';
import { seeded, shuffled } from '../scoring/random.ts';

/** The seed of every draw that becomes fixed, so that the same content gives the same items. */
export const FIXED_SEED = 1;

/** A section whose draw has become the items that one seed gives, set for everybody. */
export function fixedDraw(section: Section, draw: Draw): { section: Section; drawn: readonly string[] } {
  const picked = new Set(shuffled(draw.pool, seeded(FIXED_SEED)).slice(0, draw.pick));
  const drawn = draw.pool.filter((id) => picked.has(id));
  const own = section.items.filter((r) => !draw.pool.includes(r.item));
  const items = [...own, ...drawn.map((item) => ({ item, weight: 1 }))];
  return { section: { ...section, draw: null, items }, drawn };
}
