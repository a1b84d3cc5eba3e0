import { finding, type Finding } from '../model/finding.ts';
import type { Quiz } from '../model/holding.ts';

/** No package format has a place for dates; `setting` tells it from other settings that are lost. */
export function lostDates({ id, origin, settings: { opens, closes } }: Quiz): Finding[] {
  if (!opens && !closes) return [];
  const params = { what: 'opening and closing dates', setting: 'dates' };
  return [finding('loss-settings', 'warning', { path: origin?.path ?? null, node: id }, params)];
}
