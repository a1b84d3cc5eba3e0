import {
  compose,
  counted,
  hazardsOf,
  itemKey,
  kindOf,
  make,
  namedItems,
  newQuiz,
  outlookOf,
  poolItems,
  stemText,
  type Composed,
  type Hazard,
  type Holding,
  type Item,
  type ItemAt,
  type ItemFacts,
  type Outlook,
  type QuizDraft,
  type Shelf,
  type Shelves,
  type Source,
} from '@alforja/core';

/** Quizzes that are made, in tests: places of plain items, and a draft put together and looked at. */

interface Asked {
  readonly points?: number;
  readonly category?: string | null;
  readonly text?: string;
  /** The right choice; null is no key. */
  readonly key?: string | null;
  readonly shuffle?: boolean;
  readonly choices?: readonly string[];
}
/** A question with one right choice. */
export function question(id: string, asked: Asked = {}): Item {
  const { points = 1, category = null, text = `What is ${id} good for?`, key = 'A', shuffle = false } = asked;
  const choices = (asked.choices ?? ['this', 'that', 'nothing']).map((says, at) => ({
    id: String.fromCharCode(65 + at),
    content: [make.text(`${says} of ${id}`)],
    fixed: false,
  }));
  const right = make.call('match', [make.variable('R'), make.value('identifier', key ?? 'none')]);
  return make.item({
    id,
    title: id,
    points,
    category,
    body: [
      make.element('p', [make.text(text)]),
      make.choiceInteraction({ responseId: 'R', shuffle, choices }),
    ],
    responses: [make.response('R', 'single', 'identifier', key === null ? [] : [key])],
    scoring: {
      rules: key === null ? [] : [make.when(right, [make.set('SCORE', make.number(points))])],
      untranslated: [],
    },
  });
}

export interface Place {
  readonly holding: Holding;
  readonly used?: readonly string[];
}
export type Places = Readonly<Record<string, Place>>;

/** A place of some items, with one bank of all of them. */
export const place = (items: readonly Item[], more: Partial<Holding> = {}): Place => ({
  holding: make.holding({
    items,
    banks: [{ id: 'bank', title: 'Bank', items: items.map((i) => i.id), metadata: [], origin: null }],
    ...more,
  }),
});

export const factsOf = (item: Item, used = false): ItemFacts => ({
  item: item.id,
  kind: kindOf(item),
  category: item.category,
  points: item.points,
  picture: item.files.length > 0,
  used,
  text: `${item.title} ${stemText(item)} ${item.category ?? ''}`,
});

const shelfOf = ({ holding, used = [] }: Place): Shelf => ({
  items: holding.items.map((i) => factsOf(i, used.includes(i.id))),
  banks: new Map(holding.banks.map((b) => [b.id, b.items])),
});
export const shelvesOf = (places: Places): Shelves => {
  const shelves = new Map(Object.entries(places).map(([name, p]) => [name, shelfOf(p)]));
  return (name) => shelves.get(name) ?? null;
};

/** A draft put together from all that its places hold. */
export function composed(draft: QuizDraft, places: Places): Composed {
  const shelves = shelvesOf(places);
  const drawn = new Map(
    draft.sections.flatMap((s) => (s.draw ? [[s.id, poolItems(shelves, s.draw.pool)] as const] : [])),
  );
  const wanted = new Set(
    [...namedItems(draft), ...[...drawn.values()].flat()].map((at: ItemAt) => itemKey(at)),
  );
  const sources = new Map(
    Object.entries(places).map(([name, { holding }]): [string, Source] => [
      name,
      { ...holding, items: holding.items.filter((i) => wanted.has(itemKey({ place: name, item: i.id }))) },
    ]),
  );
  return compose(draft, drawn, sources);
}

export interface LookedAt extends Composed {
  readonly outlook: Outlook;
  readonly hazards: readonly Hazard[];
}
/** A draft put together, counted, and looked at for what is wrong. */
export function lookedAt(draft: QuizDraft, places: Places): LookedAt {
  const made = composed(draft, places);
  const outlook = outlookOf(made.holding.quizzes[0]!, made.holding.items.map(counted));
  const hazards = hazardsOf({ ...made, draft, shelves: shelvesOf(places), outlook, whole: true });
  return { ...made, outlook, hazards };
}

export const emptyQuiz = (): QuizDraft => newQuiz('Quiz');
