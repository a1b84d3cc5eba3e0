import type { Maker } from './make.ts';
import { around, round } from './make.ts';
import type { Ask, Choice, CourseSpec, ItemSpec, QuizSpec, SectionSpec } from './spec.ts';

/** A change of one item; null where the item is not of a kind that can be so changed. */
export interface ItemChange {
  readonly name: string;
  /** One of these must be said; each entry is a set of facets that belong together. */
  readonly facets: readonly string[];
  /** May be said besides. */
  readonly also?: readonly string[];
  /** Must come with an answer that scores, or is shown, something else. */
  readonly example?: boolean;
  readonly apply: (item: ItemSpec, make: Maker) => ItemSpec | null;
}

type AskOf<K extends Ask['kind']> = Ask & { readonly kind: K };

function onAsk<K extends Ask['kind']>(
  kind: K,
  change: (ask: AskOf<K>, make: Maker, item: ItemSpec) => AskOf<K> | null,
): ItemChange['apply'] {
  return (item, make) => {
    if (item.ask.kind !== kind) return null;
    const ask = change(item.ask as AskOf<K>, make, item);
    return ask && { ...item, ask };
  };
}

const LOOKALIKE: Readonly<Record<string, string>> = {
  a: 'а',
  e: 'е',
  o: 'о',
  c: 'с',
  p: 'р',
  а: 'a',
  е: 'e',
  о: 'o',
  с: 'c',
  α: 'a',
  ο: 'o',
  ν: 'v',
};

/** The same to the eye, another letter to everything else. */
export function lookalike(text: string): string | null {
  const at = [...text].findIndex((c) => LOOKALIKE[c] !== undefined);
  if (at < 0) return null;
  const letters = [...text];
  letters[at] = LOOKALIKE[letters[at]!]!;
  return letters.join('');
}

const swap = <T>(list: readonly T[], a: number, b: number): T[] => {
  const out = [...list];
  [out[a], out[b]] = [out[b]!, out[a]!];
  return out;
};

const setChoice = (choices: readonly Choice[], at: number, change: Partial<Choice>): Choice[] =>
  choices.map((c, n) => (n === at ? { ...c, ...change } : c));

/** Whether a choice says anything but its picture's name; what is changed has to be seen. */
const cased = (text: string): boolean => text.toLowerCase() !== text.toUpperCase();

export const ITEM_CHANGES: readonly ItemChange[] = [
  {
    name: 'a word of the stem',
    facets: ['wording'],
    apply: (item, make) => {
      const [first, ...rest] = item.stem;
      return first?.kind === 'paragraph'
        ? { ...item, stem: [{ ...first, text: `${first.text} ${make.phrase(1, 2)}` }, ...rest] }
        : null;
    },
  },
  {
    name: 'a look-alike letter in the stem',
    facets: ['wording'],
    apply: (item) => {
      const [first, ...rest] = item.stem;
      const text = first?.kind === 'paragraph' ? lookalike(first.text) : null;
      return text && first?.kind === 'paragraph' ? { ...item, stem: [{ ...first, text }, ...rest] } : null;
    },
  },
  {
    name: 'emphasis taken away',
    facets: ['wording'],
    apply: (item) => {
      const at = item.stem.findIndex((b) => b.kind === 'paragraph' && b.strong !== '');
      const block = item.stem[at];
      if (block?.kind !== 'paragraph') return null;
      return {
        ...item,
        stem: item.stem.map((b, n) =>
          n === at ? { ...block, text: `${block.text} ${block.strong}`, strong: '' } : b,
        ),
      };
    },
  },
  {
    name: 'a formula',
    facets: ['mathematics'],
    apply: (item) =>
      item.stem.some((b) => b.kind === 'formula')
        ? { ...item, stem: item.stem.map((b) => (b.kind === 'formula' ? { ...b, under: `${b.under}q` } : b)) }
        : null,
  },
  {
    name: 'other bytes under the same name',
    facets: ['files'],
    apply: (item, make) => {
      const at = item.stem.findIndex((b) => b.kind === 'image');
      const block = item.stem[at];
      if (block?.kind !== 'image') return null;
      return {
        ...item,
        stem: item.stem.map((b, n) =>
          n === at ? { ...block, image: { ...block.image, drawing: make.phrase(2, 3) } } : b,
        ),
      };
    },
  },
  {
    name: 'an alternative text',
    facets: ['files'],
    apply: (item, make) => {
      const at = item.stem.findIndex((b) => b.kind === 'image');
      const block = item.stem[at];
      if (block?.kind !== 'image') return null;
      return {
        ...item,
        stem: item.stem.map((b, n) =>
          n === at ? { ...block, image: { ...block.image, alt: make.phrase(1, 3) } } : b,
        ),
      };
    },
  },
  {
    name: 'two pictures exchanged',
    facets: ['files'],
    apply: (item) => {
      const [a, b] = item.stem.flatMap((block, at) => (block.kind === 'image' ? [at] : []));
      return a === undefined || b === undefined ? null : { ...item, stem: swap(item.stem, a, b) };
    },
  },
  { name: 'the title', facets: ['title'], apply: (item, make) => ({ ...item, title: make.phrase(2, 4) }) },
  {
    name: 'a look-alike letter in the title',
    facets: ['title'],
    apply: (item) => {
      const title = lookalike(item.title);
      return title === null ? null : { ...item, title };
    },
  },
  {
    name: 'the category',
    facets: ['category'],
    apply: (item, make) => ({ ...item, category: make.phrase(1, 3) }),
  },
  {
    name: 'the category taken away',
    facets: ['category'],
    apply: (item) => (item.category ? { ...item, category: null } : null),
  },
  {
    name: 'points',
    facets: ['points'],
    apply: (item) => (item.ask.kind === 'essay' ? null : { ...item, points: item.points + 1 }),
    example: true,
  },
  {
    name: 'what a choice says',
    facets: ['choices'],
    apply: onAsk('choice', (ask, make) => ({
      ...ask,
      choices: setChoice(ask.choices, make.chance.whole(0, ask.choices.length - 1), {
        text: make.phrase(2, 4),
      }),
    })),
  },
  {
    name: 'a look-alike letter in a choice',
    facets: ['choices'],
    apply: onAsk('choice', (ask) => {
      const at = ask.choices.findIndex((c) => lookalike(c.text) !== null);
      return at < 0
        ? null
        : { ...ask, choices: setChoice(ask.choices, at, { text: lookalike(ask.choices[at]!.text)! }) };
    }),
  },
  {
    name: 'the picture of a choice, other bytes',
    facets: ['choices', 'files'],
    also: ['files', 'choices'],
    apply: onAsk('choice', (ask, make) => {
      const at = ask.choices.findIndex((c) => c.image !== null);
      if (at < 0) return null;
      return {
        ...ask,
        choices: setChoice(ask.choices, at, {
          image: { ...ask.choices[at]!.image!, drawing: make.phrase(2, 3) },
        }),
      };
    }),
  },
  {
    name: 'choices in another order',
    facets: ['choice-order'],
    apply: onAsk('choice', (ask, make) => {
      const at = make.chance.whole(0, ask.choices.length - 2);
      return { ...ask, choices: swap(ask.choices, at, at + 1) };
    }),
  },
  {
    name: 'shuffled or not',
    facets: ['shuffle'],
    apply: onAsk('choice', (ask) => ({ ...ask, shuffle: !ask.shuffle })),
  },
  {
    name: 'a choice pinned or let go',
    facets: ['shuffle'],
    apply: onAsk('choice', (ask, make) =>
      ask.shuffle
        ? {
            ...ask,
            choices: setChoice(ask.choices, make.chance.whole(0, ask.choices.length - 1), {}).map((c, at) =>
              at === 0 ? { ...c, fixed: !c.fixed } : c,
            ),
          }
        : null,
    ),
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

/** A change of where items stand or how the quiz is set. */
export interface QuizChange {
  readonly name: string;
  readonly facets: readonly string[];
  readonly also?: readonly string[];
  readonly apply: (course: CourseSpec, make: Maker) => CourseSpec | null;
}

const onQuiz =
  (change: (quiz: QuizSpec, make: Maker) => QuizSpec | null): QuizChange['apply'] =>
  (course, make) => {
    const quiz = change(course.quiz, make);
    return quiz && { ...course, quiz };
  };

const onSection = (change: (section: SectionSpec, make: Maker) => SectionSpec | null): QuizChange['apply'] =>
  onQuiz((quiz, make) => {
    const order = make.chance.shuffled(quiz.sections.map((_, at) => at));
    for (const at of order) {
      const section = change(quiz.sections[at]!, make);
      if (section) return { ...quiz, sections: quiz.sections.map((s, n) => (n === at ? section : s)) };
    }
    return null;
  });

export const QUIZ_CHANGES: readonly QuizChange[] = [
  {
    name: 'the title of the quiz',
    facets: ['title'],
    apply: onQuiz((quiz, make) => ({ ...quiz, title: make.phrase(3, 5) })),
  },
  {
    name: 'instructions',
    facets: ['instructions'],
    apply: onQuiz((quiz, make) => ({ ...quiz, instructions: make.phrase(5, 9) })),
  },
  {
    name: 'attempts',
    facets: ['attempts'],
    apply: onQuiz((quiz) => ({ ...quiz, attempts: (quiz.attempts ?? 3) + 1 })),
  },
  {
    name: 'time',
    facets: ['time-limit'],
    apply: onQuiz((quiz) => ({ ...quiz, minutes: (quiz.minutes ?? 10) + 5 })),
  },
  {
    name: 'the title of a section',
    facets: ['sections'],
    apply: onSection((s, make) => ({ ...s, title: make.phrase(2, 4) })),
  },
  {
    name: 'a look-alike letter in the title of a section',
    facets: ['sections'],
    apply: onSection((s) => (lookalike(s.title) === null ? null : { ...s, title: lookalike(s.title)! })),
  },
  {
    name: 'shuffle of a section',
    facets: ['shuffle'],
    apply: onSection((s) => ({ ...s, shuffle: !s.shuffle })),
  },
  {
    name: 'order in a section that is not shuffled',
    facets: ['membership'],
    apply: onSection((s) =>
      s.shuffle || s.pick !== null || s.items.length < 2 ? null : { ...s, items: swap(s.items, 0, 1) },
    ),
  },
  {
    name: 'how many are drawn',
    facets: ['draw'],
    also: ['points'],
    apply: onSection((s) => (s.pick === null ? null : { ...s, pick: s.pick > 1 ? s.pick - 1 : s.pick + 1 })),
  },
  {
    name: 'the last item of a section moved to the start of the next',
    facets: ['membership'],
    apply: onQuiz((quiz) => {
      const at = quiz.sections.findIndex((s, n) => {
        const next = quiz.sections[n + 1];
        return s.pick === null && s.items.length > 1 && next?.pick === null;
      });
      if (at < 0) return null;
      const last = quiz.sections[at]!.items.at(-1)!;
      return {
        ...quiz,
        sections: quiz.sections.map((s, n) =>
          n === at
            ? { ...s, items: s.items.slice(0, -1) }
            : n === at + 1
              ? { ...s, items: [last, ...s.items] }
              : s,
        ),
      };
    }),
  },
];
