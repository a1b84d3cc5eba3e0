import type { Maker } from '../make.ts';
import type { Image } from '../spec.ts';
import { lookalike, onAsk, setChoice, swap, type ItemChange } from './change.ts';

/** The first picture of the stem made another. */
const onImage =
  (change: (image: Image, make: Maker) => Image): ItemChange['apply'] =>
  (item, make) => {
    const at = item.stem.findIndex((b) => b.kind === 'image');
    const block = item.stem[at];
    if (block?.kind !== 'image') return null;
    const image = change(block.image, make);
    return { ...item, stem: item.stem.map((b, n) => (n === at ? { ...block, image } : b)) };
  };

/** What is shown: text, formulas, pictures, titles, choices. */
export const SHOWN: readonly ItemChange[] = [
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
    apply: onImage((image, make) => ({ ...image, drawing: make.phrase(2, 3) })),
  },
  {
    name: 'an alternative text',
    facets: ['files'],
    apply: onImage((image, make) => ({ ...image, alt: make.phrase(1, 3) })),
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
];
