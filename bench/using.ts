import { readFileSync } from 'node:fs';
import {
  applyEdits,
  changed,
  compose,
  hazardsOf,
  interactionsOf,
  type ItemFacts,
  kindOf,
  make,
  newItem,
  newQuiz,
  NO_FILTER,
  optionSets,
  outlookOf,
  poolItems,
  type Quiz,
  readHolding,
  simulate,
  stemText,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { LIMITS } from './raw.ts';
import { best } from './rounds.ts';

/** Candidates, making and editing on one package; prints the figures as JSON: node using.js PATH */
const bytes = new Uint8Array(readFileSync(process.argv[2]!));
const holding = await readHolding('bench.zip', bytes, nodePlatform, LIMITS);
const items = holding.items.length;
const rounds = items > 20_000 ? 1 : 5;

/** Ten thousand candidates on sixty items, forty of them drawn from eighty; both sides, so each item is scored twice. */
const quiz: Quiz = {
  id: 'bench',
  title: 'Bench',
  settings: make.NO_SETTINGS,
  sections: [
    {
      id: 's',
      title: '',
      shuffle: true,
      items: holding.items.slice(0, 20).map((i) => ({ item: i.id, weight: 1 })),
      draw: {
        pick: 40,
        bank: null,
        pool: holding.items.slice(20, 100).map((i) => i.id),
        weights: null,
        pointsEach: 2,
        withReplacement: false,
      },
      instructions: null,
    },
  ],
  test: null,
  metadata: [],
  origin: null,
};
const CANDIDATES = 10_000;
const side = { holding: { ...holding, items: holding.items.slice(0, 100) }, quiz };
const partners = new Map(side.holding.items.map((i) => [i.id, i.id]));
let candidateRuns = 0;
const candidateMs = await best(rounds, () => {
  candidateRuns = simulate(side, side, partners, { candidates: CANDIDATES }).runs;
});
/** A quiz that is being made, drawing from all there is: narrowed, put together, counted and looked at once, as after each change. */
const facts: readonly ItemFacts[] = holding.items.map((i) => ({
  item: i.id,
  kind: kindOf(i),
  category: i.category,
  points: i.points,
  picture: i.files.length > 0,
  used: false,
  text: `${i.title} ${stemText(i)} ${i.category ?? ''}`,
}));
const shelf = { items: facts, banks: new Map([['all', facts.map((f) => f.item)]]) };
const stubs = facts.map((f) => newItem({ id: f.item, points: f.points, category: f.category }));
const draft = changed(newQuiz('Bench'), {
  do: 'section-add',
  title: '',
  draw: {
    pick: 40,
    pointsEach: 2,
    pool: {
      from: [{ place: 'p', bank: 'all', filter: { ...NO_FILTER, words: 'a' } }],
      named: [],
      without: [],
    },
  },
});
const makerMs = await best(rounds, () => {
  const drawn = new Map(
    draft.sections.flatMap((d) => (d.draw ? [[d.id, poolItems(() => shelf, d.draw.pool)] as const] : [])),
  );
  const made = compose(draft, drawn, new Map([['p', { items: stubs, files: [], rubrics: [] }]]));
  const all = made.holding.items.map((i) => ({ ...i, kind: 'choice', seconds: 60 }));
  const outlook = outlookOf(made.holding.quizzes[0]!, all);
  hazardsOf({ ...made, draft, shelves: () => shelf, outlook, whole: false });
});
// One edit an item, of what is done by the hundred: points, names, categories, words replaced, weeding; and of
// every tenth item the key, whose program is written anew and run.
const edits = holding.items.map((item, at): object => {
  const node = item.id;
  const [choice] = interactionsOf(item).flatMap((i) => optionSets(i).flatMap((s) => s.map((o) => o.id)));
  const all: object[] = [
    { op: 'points', node, to: 2 },
    { op: 'title', node, to: `Exercise ${at}` },
    { op: 'category', node, to: 'Chapter' },
    { op: 'stem', node, to: stemText(item).replace('When', 'If') },
    { op: 'leave-out', node },
    choice === undefined
      ? { op: 'points', node, to: 3 }
      : { op: 'choice-text', node, choice, to: 'Another choice' },
    { op: 'points', node, to: 4 },
    { op: 'stem', node, to: stemText(item).replace('what about', 'what of') },
    { op: 'category', node, to: null },
    choice === undefined ? { op: 'points', node, to: 3 } : { op: 'key', node, to: [choice] },
  ];
  return all[Math.floor(at / 5) % all.length]!;
});
let applied = 0;
const editMs = await best(rounds, () => {
  // Trees know nothing of earlier rounds: what has been recognised of them is found out again.
  const fresh = { ...holding, items: holding.items.map((i) => ({ ...i })) };
  applied = applyEdits(fresh, edits).edits.length;
});
if (applied < items * 0.8) throw new Error(`${applied} of ${items} edits applied`);

process.stdout.write(JSON.stringify({ editMs, candidateRuns, candidateMs, makerMs }));
