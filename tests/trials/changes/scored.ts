import { around, round } from '../make.ts';
import { cased, onAsk, swap, type ItemChange } from './change.ts';

/** What is right, and what it gives. */
export const SCORED: readonly ItemChange[] = [
  {
    name: 'points',
    facets: ['points'],
    apply: (item) => (item.ask.kind === 'essay' ? null : { ...item, points: item.points + 1 }),
    example: true,
  },
  {
    name: 'one answer or several',
    facets: ['kind'],
    also: ['scoring', 'key', 'feedback', 'choices'],
    apply: onAsk('choice', (ask) =>
      ask.right.length === 1 && !ask.each ? { ...ask, several: !ask.several } : null,
    ),
  },
  {
    name: 'another right choice',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('choice', (ask) => {
      if (ask.each) return null;
      const [gone] = ask.right;
      const come = ask.choices.find((c) => !ask.right.includes(c.id))!;
      return { ...ask, right: [...ask.right.filter((r) => r !== gone), come.id].sort() };
    }),
  },
  {
    name: 'one right choice fewer',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('choice', (ask) =>
      ask.each || ask.right.length < 2 ? null : { ...ask, right: ask.right.slice(1) },
    ),
  },
  {
    name: 'what a wrong choice gives',
    facets: ['scoring'],
    example: true,
    apply: onAsk('choice', (ask) => {
      if (!ask.each) return null;
      const wrong = ask.choices.find((c) => !ask.right.includes(c.id))!;
      const was = ask.each[wrong.id]!;
      return {
        ...ask,
        each: { ...ask.each, [wrong.id]: ask.several ? (was < -0.3 ? 0 : -0.5) - 0 : was === 0 ? 0.75 : 0 },
      };
    }),
  },
  {
    name: 'all or nothing instead of each',
    facets: ['scoring'],
    example: true,
    apply: onAsk('choice', (ask) =>
      ask.each && ask.several && ask.right.length > 1 ? { ...ask, each: null } : null,
    ),
  },
  {
    name: 'two steps of the order exchanged',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('order', (ask, make) => {
      const at = make.chance.whole(0, ask.right.length - 2);
      return { ...ask, right: swap(ask.right, at, at + 1) };
    }),
  },
  {
    name: 'points for places instead of the whole order',
    facets: ['scoring'],
    example: true,
    apply: onAsk('order', (ask) => (ask.right.length > 2 ? { ...ask, places: !ask.places } : null)),
  },
  {
    name: 'another pair',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('match', (ask) => {
      const [[a, x], [b, y]] = ask.pairs as [readonly [string, string], readonly [string, string]];
      return { ...ask, pairs: [[a, y] as const, [b, x] as const, ...ask.pairs.slice(2)] };
    }),
  },
  {
    name: 'another pair of likes',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('associate', (ask) => {
      const [[a, b], [c, d]] = ask.pairs as [readonly [string, string], readonly [string, string]];
      return {
        ...ask,
        pairs: [
          [a, c],
          [b, d],
        ],
      };
    }),
  },
  {
    name: 'another gap',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('gaps', (ask) => {
      const [[a, x], [b, y]] = ask.pairs as [readonly [string, string], readonly [string, string]];
      return { ...ask, pairs: [[a, y] as const, [b, x] as const, ...ask.pairs.slice(2)] };
    }),
  },
  {
    name: 'pairs all or nothing',
    facets: ['scoring'],
    example: true,
    apply: onAsk('match', (ask) => ({ ...ask, each: !ask.each })),
  },
  {
    name: 'another accepted answer',
    facets: ['key'],
    also: ['feedback', 'scoring'],
    example: true,
    apply: onAsk('text', (ask, make) => ({
      ...ask,
      accepted: [{ ...ask.accepted[0]!, text: make.phrase(2, 3) }, ...ask.accepted.slice(1)],
    })),
  },
  {
    name: 'what another accepted answer gives',
    facets: ['scoring', 'key'],
    also: ['key', 'scoring', 'feedback'],
    example: true,
    apply: onAsk('text', (ask) => {
      const [first, second, ...rest] = ask.accepted;
      return second
        ? { ...ask, accepted: [first!, { ...second, share: second.share === 1 ? 0.5 : 1 }, ...rest] }
        : null;
    }),
  },
  {
    name: 'case of an accepted answer',
    facets: ['case-sensitivity'],
    also: ['feedback'],
    example: true,
    apply: onAsk('text', (ask) =>
      cased(ask.accepted[0]!.text)
        ? {
            ...ask,
            accepted: [
              { ...ask.accepted[0]!, caseSensitive: !ask.accepted[0]!.caseSensitive },
              ...ask.accepted.slice(1),
            ],
          }
        : null,
    ),
  },
  {
    name: 'case of a part',
    facets: ['case-sensitivity'],
    also: ['feedback'],
    example: true,
    apply: onAsk('part', (ask) => (cased(ask.text) ? { ...ask, caseSensitive: !ask.caseSensitive } : null)),
  },
  {
    name: 'another part',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('part', (ask, make) => ({ ...ask, text: make.phrase(2, 2) })),
  },
  {
    name: 'a wider tolerance',
    facets: ['tolerance'],
    also: ['feedback'],
    example: true,
    apply: onAsk('number', (ask) =>
      ask.half ? null : { ...ask, full: around(ask.value, round(ask.full.high - ask.value + 0.25)) },
    ),
  },
  {
    name: 'another number',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('number', (ask) => {
      const by = round(ask.full.high - ask.value);
      const value = round(ask.value + 2 * by + 7);
      return ask.half ? null : { ...ask, value, full: around(value, by) };
    }),
  },
  {
    name: 'a band of half the points',
    facets: ['scoring', 'tolerance'],
    also: ['scoring', 'tolerance'],
    example: true,
    apply: onAsk('number', (ask) => (ask.half ? { ...ask, half: null } : null)),
  },
  {
    name: 'an answer of a blank',
    facets: ['key'],
    also: ['feedback', 'scoring'],
    example: true,
    apply: onAsk('blanks', (ask, make) => ({
      ...ask,
      blanks: ask.blanks.map((b, at) => (at === 0 ? [make.phrase(2, 2), ...b.slice(1)] : b)),
    })),
  },
  {
    name: 'another spot',
    facets: ['key'],
    also: ['feedback'],
    example: true,
    apply: onAsk('spots', (ask) => ({ ...ask, right: ask.spots.find((s) => s !== ask.right)! })),
  },
];
