import {
  applyEdits,
  fileReader,
  interactionsOf,
  optionSets,
  readHolding,
  recognise,
  writeHolding,
  type Holding,
  type Item,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { unexplained } from '../support/losses.ts';
import { Maker } from './make.ts';
import { Chance } from './random.ts';
import { courseFor, type Outcome } from './trial.ts';

const near = (a: number, b: number): boolean => Math.abs(a - b) < 1e-6 * Math.max(1, Math.abs(b));

/** An edit of an item at random; many do not fit it, and are refused. */
function editOf(item: Item, chance: Chance, make: Maker): object {
  const node = item.id;
  const ids = interactionsOf(item).flatMap((i) => optionSets(i).flatMap((s) => s.map((o) => o.id)));
  const choice = ids.length > 0 ? chance.pick(ids) : 'none';
  const response = item.responses.length > 0 ? chance.pick(item.responses).id : 'none';
  const words = make.phrase(2, 5);
  const n = chance.whole(1, 40) / 4;
  const pair = interactionsOf(item).flatMap((i) => {
    const [left = [], right = left] = optionSets(i);
    return left.length > 1 && right.length > 1 ? [`${chance.pick(left).id} ${chance.pick(right).id}`] : [];
  });
  const all: object[] = [
    { op: 'title', kind: 'item', to: words },
    { op: 'stem', to: words },
    { op: 'category', to: chance.maybe(0.8) ? words : null },
    { op: 'points', to: n },
    { op: 'key', response, to: chance.shuffled(ids).slice(0, chance.whole(1, 3)) },
    { op: 'key', response, to: [n] },
    { op: 'key', response, to: [words] },
    { op: 'key', response, to: pair.slice(0, 1) },
    {
      op: 'accept',
      response,
      to: [{ text: words }, { text: `${words} ${n}`, points: item.points / 2, caseSensitive: true }],
    },
    {
      op: 'tolerance',
      response,
      to: { mode: chance.pick(['absolute', 'relative', 'range']), low: -n, high: 1000 + n },
    },
    { op: 'tolerance', response, to: null },
    { op: 'case', to: chance.maybe() },
    { op: 'shuffle', to: chance.maybe() },
    { op: 'answers', response, to: chance.pick(['one', 'several']) },
    { op: 'choice-text', choice, to: words },
    { op: 'choice-fixed', choice, to: chance.maybe() },
    { op: 'choice-add', choice: `new_${chance.whole(1, 9)}`, to: words, after: choice },
    { op: 'choice-drop', choice },
    {
      op: 'feedback',
      on: chance.pick(['right', 'wrong', 'general', choice]),
      to: chance.maybe(0.85) ? words : null,
    },
    { op: 'leave-out', kind: 'item' },
  ];
  return { node, ...chance.pick(all) };
}

const quizEdit = (quiz: Holding['quizzes'][number], chance: Chance, make: Maker): object => {
  const section = chance.whole(0, Math.max(0, quiz.sections.length - 1));
  const items = quiz.sections[section]?.items.map((r) => r.item) ?? [];
  const all: object[] = [
    { op: 'title', kind: 'quiz', to: make.phrase(1, 3) },
    { op: 'settings', to: { attempts: chance.whole(1, 4), timeLimitMinutes: chance.whole(10, 90) } },
    { op: 'settings', to: { instructions: make.phrase(3, 8) } },
    { op: 'section-title', section, to: make.phrase(1, 3) },
    { op: 'order', section, to: chance.shuffled(items) },
    { op: 'draw', section, to: { pick: 1 } },
  ];
  return { node: quiz.id, ...chance.pick(all) };
};

/**
 * Makes a course, edits some of it at random, has it written in its own standard and read again: it is what the
 * edits made of it, item by item, and every item scores what it says.
 */
export async function edited(
  seed: number,
): Promise<{ outcomes: Outcome[]; written: readonly [Uint8Array, Uint8Array]; applied: number }> {
  const chance = new Chance(seed);
  const make = new Maker(chance);
  const { format, given } = courseFor(chance, make);
  const before = await readHolding('given.zip', given, nodePlatform);
  const target = `qti${format}` as const;
  const read = await fileReader('given.zip', given, nodePlatform);
  const edits = [
    ...before.items.flatMap((i) => Array.from({ length: chance.whole(0, 3) }, () => editOf(i, chance, make))),
    ...before.quizzes.flatMap((q) => (chance.maybe(0.6) ? [quizEdit(q, chance, make)] : [])),
  ];
  const done = applyEdits(before, edits);
  const { packages, findings } = writeHolding(done.holding, target, read, nodePlatform);
  const after = await readHolding('back.zip', packages[0]!, nodePlatform);
  // What the way alone does to the course, edits or not, is no matter of edits.
  const plainly = writeHolding(before, target, read, nodePlatform);
  const alone = await readHolding('plain.zip', plainly.packages[0]!, nodePlatform);
  const known = new Set(unexplained(before, alone, plainly.findings).map((m) => m.split(':')[0]));
  const misses = unexplained(done.holding, after, findings).filter((m) => !known.has(m.split(':')[0]!));
  const untrue = done.holding.items.flatMap((item) => {
    const was = before.items.find((i) => i.id === item.id);
    if (was && !near(recognise(was).best.raw * was.scale, was.points)) return [];
    const { best } = recognise(item);
    return best.raw > 0 && !near(best.raw * item.scale, item.points)
      ? [`${item.id} says ${item.points}, gives ${best.raw * item.scale}`]
      : [];
  });
  const all = [...misses, ...untrue];
  const about = (miss: string): string =>
    `${miss} after ${JSON.stringify(done.edits.filter((e) => miss.startsWith(`${e.node ?? ''} `)).map(({ was: _was, ...e }) => e))}`;
  return {
    outcomes: before.items.map((_, at) => ({
      name: `edited ${format}`,
      miss: all[at] ? about(all[at]) : null,
    })),
    written: [given, packages[0]!],
    applied: done.edits.length,
  };
}
