import type { Edit } from '../edit/schema.ts';
import { clean } from '../scoring/operators/comparison.ts';
import { recognise, shapeIn } from '../scoring/recognise.ts';
import { itemOf, type Repairer } from './repairer.ts';

/** Half a unit of the last figure either way: everything that rounds to the answer. */
export const toleranceMissing: Repairer<'tolerance-missing'> = {
  code: 'tolerance-missing',
  repair: (situation, finding) => {
    const item = itemOf(situation, finding);
    if (!item) return null;
    const { shape } = recognise(item);
    const edits = item.responses.flatMap((r): Edit[] => {
      const part = shapeIn(shape, r.id);
      if (part?.kind !== 'numeric' || part.value !== finding.params.value) return [];
      const places = /\.(\d+)$/u.exec(String(part.value))?.[1]?.length ?? 0;
      const half = 10 ** -places / 2;
      const to = { mode: 'absolute', low: clean(part.value - half), high: clean(part.value + half) } as const;
      return [{ op: 'tolerance', node: item.id, response: r.id, to }];
    });
    return edits.length > 0 ? edits : null;
  },
};
