import type { Item } from '../model/holding.ts';
import { near, tidyNumber } from '../model/number.ts';

/** The item worth so much; its parts change in proportion, and what nobody can score stays as it is. */
export function worthOf(item: Item, points: number): Item {
  if (near(points, item.points) || item.points <= 0) return item;
  const factor = points / item.points;
  const sources = item.pointsSources.filter((s) => s.source === 'declared');
  return { ...item, points: tidyNumber(points), scale: item.scale * factor, pointsSources: sources };
}
