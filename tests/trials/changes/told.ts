import type { ItemChange } from './change.ts';

/** What candidates are told, and when. */
export const TOLD: readonly ItemChange[] = [
  {
    name: 'what a note says',
    facets: ['feedback'],
    apply: (item, make) =>
      item.notes.length > 0
        ? { ...item, notes: item.notes.map((n, at) => (at === 0 ? { ...n, text: make.phrase(3, 6) } : n)) }
        : null,
  },
  {
    name: 'a note taken away',
    facets: ['feedback'],
    apply: (item) => (item.notes.length > 0 ? { ...item, notes: item.notes.slice(1) } : null),
  },
  {
    name: 'two notes exchanged',
    facets: ['feedback'],
    example: true,
    apply: (item) => {
      // The note for the right answer and that for the one right choice are shown together.
      const { ask } = item;
      if (ask.kind === 'choice' && !ask.several && item.notes.some((n) => n.when === 'right')) return null;
      const [a, b, ...rest] = item.notes;
      return a && b ? { ...item, notes: [{ ...a, when: b.when }, { ...b, when: a.when }, ...rest] } : null;
    },
  },
  {
    name: 'a note moved to another choice',
    facets: ['feedback'],
    example: true,
    apply: (item) => {
      if (item.ask.kind !== 'choice') return null;
      const at = item.notes.findIndex((n) => typeof n.when === 'object');
      const taken = item.notes.flatMap((n) => (typeof n.when === 'object' ? [n.when.choice] : []));
      const free = item.ask.choices.find((c) => !taken.includes(c.id));
      return at < 0 || !free
        ? null
        : { ...item, notes: item.notes.map((n, k) => (k === at ? { ...n, when: { choice: free.id } } : n)) };
    },
  },
  {
    name: 'a hint made a solution',
    facets: ['feedback'],
    apply: (item) => {
      const at = item.notes.findIndex((n) => n.kind !== 'plain');
      return at < 0
        ? null
        : {
            ...item,
            notes: item.notes.map((n, k) =>
              k === at ? { ...n, kind: n.kind === 'hint' ? ('solution' as const) : ('hint' as const) } : n,
            ),
          };
    },
  },
];
