import {
  applyEdits,
  changed,
  compareHoldings,
  compose,
  DEFAULT_LIMITS,
  evaluate,
  hazardsOf,
  interactionsOf,
  type ItemFacts,
  kindOf,
  make,
  newItem,
  newQuiz,
  NO_FILTER,
  openArchive,
  optionSets,
  outlookOf,
  poolItems,
  probesOf,
  type Quiz,
  readHolding,
  recognise,
  simulate,
  stemText,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { SaxesParser } from 'saxes';
import { largePackage } from '../demo/large.ts';

/**
 * One size, in a process of its own: prints the figures as JSON. Raw cost: unzip, and parse the same XML with
 * the same parser.
 */
const items = Number(process.argv[2] ?? 1000);
const bytes = largePackage(items);
const rounds = items > 20_000 ? 1 : 5;
const limits = { maxUnpacked: 4 * 2 ** 30 };

async function best(work: () => Promise<void> | void): Promise<number> {
  let least = Infinity;
  for (let round = 0; round < rounds; round++) {
    const before = performance.now();
    await work();
    least = Math.min(least, performance.now() - before);
  }
  return least;
}

let unpackedBytes = 0;
const raw = async (): Promise<void> => {
  const archive = await openArchive('bench.zip', bytes, nodePlatform, { ...DEFAULT_LIMITS, ...limits });
  unpackedBytes = 0;
  for (const path of archive.files.keys()) {
    const content = archive.read(path)!;
    unpackedBytes += content.length;
    const parser = new SaxesParser({ xmlns: false, position: true });
    parser.on('error', (e) => {
      throw e;
    });
    parser.write(new TextDecoder().decode(content)).close();
  }
};
const rawMs = await best(raw);
globalThis.gc?.();
const before = process.memoryUsage().rss;
let peak = before;
const watch = setInterval(() => (peak = Math.max(peak, process.memoryUsage().rss)), 10);
let holding = await readHolding('bench.zip', bytes, nodePlatform, limits);
peak = Math.max(peak, process.memoryUsage().rss);
clearInterval(watch);
const readMs = await best(async () => {
  holding = await readHolding('bench.zip', bytes, nodePlatform, limits);
});
// What came back: other identifiers, and one item in fifty changed.
const back = await readHolding('bench.zip', bytes, nodePlatform, limits);
const renamed = new Map(back.items.map((item, at) => [item.id, `q_${at}`]));
const other = {
  ...back,
  items: back.items.map((item, at) => ({
    ...item,
    id: renamed.get(item.id)!,
    points: at % 50 === 0 ? item.points + 1 : item.points,
  })),
  banks: back.banks.map((bank) => ({ ...bank, items: bank.items.map((id) => renamed.get(id)!) })),
};
const compareMs = await best(() => void compareHoldings(holding, other));
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
const candidateMs = await best(() => {
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
const makerMs = await best(() => {
  const drawn = new Map(
    draft.sections.flatMap((d) => (d.draw ? [[d.id, poolItems(() => shelf, d.draw.pool)] as const] : [])),
  );
  const made = compose(draft, drawn, new Map([['p', { items: stubs, files: [], rubrics: [] }]]));
  const all = made.holding.items.map((i) => ({ ...i, kind: 'choice', seconds: 60 }));
  const outlook = outlookOf(made.holding.quizzes[0]!, all);
  hazardsOf({ ...made, draft, shelves: () => shelf, outlook, whole: false });
});
let probes = 0;
const sample = holding.items.slice(0, 2000);
const sets = sample.map((item) => ({ item, answers: probesOf(item, recognise(item).best.answers).answers }));
const probeMs = await best(() => {
  probes = 0;
  for (const { item, answers } of sets) {
    for (const given of answers) evaluate(item, given);
    probes += answers.length;
  }
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
const editMs = await best(() => {
  // Trees know nothing of earlier rounds: what has been recognised of them is found out again.
  const fresh = { ...holding, items: holding.items.map((i) => ({ ...i })) };
  applied = applyEdits(fresh, edits).edits.length;
});
if (applied < items * 0.8) throw new Error(`${applied} of ${items} edits applied`);

process.stdout.write(
  JSON.stringify({
    items,
    unpackedBytes,
    rawMs,
    readMs,
    compareMs,
    editMs,
    probes,
    probeMs,
    candidateRuns,
    candidateMs,
    makerMs,
    peakBytes: peak - before,
  }),
);
