import { expect } from 'chai';
import {
  applyEdits,
  compareHoldings,
  comparisonInWords,
  fileReader,
  forecast,
  interactionsOf,
  isReplaceable,
  NEAREST,
  readHolding,
  recognise,
  writeHolding,
  type Holding,
  type Item,
  type Target,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';
import { choicesIn } from './support.ts';

/** Every operation on every kind of item, written in every format and read again: it arrives as it was edited. */

/** One edit an item, where it has what the edit is about. */
const EDITS: Readonly<Record<string, (item: Item) => object>> = {
  points: () => ({ op: 'points', to: 7 }),
  stem: () => ({ op: 'stem', to: 'Another question in other words' }),
  title: () => ({ op: 'title', kind: 'item', to: 'Another title' }),
  category: () => ({ op: 'category', to: 'Another category' }),
  'case matters': () => ({ op: 'case', to: true }),
  'case does not matter': () => ({ op: 'case', to: false }),
  shuffle: () => ({ op: 'shuffle', to: true }),
  accept: (item) => ({ op: 'accept', to: [{ text: 'x' }, { text: 'Y', points: item.points / 2 }] }),
  range: () => ({ op: 'tolerance', to: { mode: 'range', low: -1e6, high: 1e6 } }),
  exact: () => ({ op: 'tolerance', to: null }),
  'key of a number': () => ({ op: 'key', to: [12.5] }),
  'key of a text': () => ({ op: 'key', to: ['word'] }),
  'key of choices': (item) => ({ op: 'key', to: choicesIn(item).slice(-1), response: item.responses[0]?.id }),
  answers: () => ({ op: 'answers', to: 'several' }),
  'choice-text': (item) => ({
    op: 'choice-text',
    choice: choicesIn(item)[0] ?? 'none',
    to: 'Another choice',
  }),
  'choice-fixed': (item) => ({ op: 'choice-fixed', choice: choicesIn(item)[0] ?? 'none', to: true }),
  'choice-order': (item) => ({ op: 'choice-order', to: choicesIn(item).toReversed() }),
  'choice-drop': (item) => ({ op: 'choice-drop', choice: choicesIn(item).at(-1) ?? 'none' }),
  'choice-add': (item) => ({
    op: 'choice-add',
    choice: 'Z9',
    to: 'One more',
    after: choicesIn(item)[0] ?? 'none',
  }),
  'feedback when right': () => ({ op: 'feedback', on: 'right', to: 'Yes, that is it.' }),
  'feedback when wrong': () => ({ op: 'feedback', on: 'wrong', to: 'No, read again.' }),
  'feedback for all': () => ({ op: 'feedback', on: 'general', to: 'See chapter 3.' }),
  'feedback on a choice': (item) => ({
    op: 'feedback',
    on: choicesIn(item)[0] ?? 'none',
    to: 'You took this.',
  }),
  'the nearest kind': (item) => {
    const from = interactionsOf(item)
      .map((i) => i.kind)
      .find(isReplaceable);
    return { op: 'kind', from: from ?? 'none', to: from === undefined ? 'none' : NEAREST[from] };
  },
  'all or nothing': () => ({ op: 'scoring', to: 'all-or-nothing' }),
  'hints for all': () => ({ op: 'feedback-plain', hints: true }),
};
const TARGETS: readonly Target[] = ['qti1.2', 'qti2.1', 'qti3.0', 'cc1.3'];
/** Of these the original, so that nothing is lost on the way that edits have not brought. */
const SOURCES: Readonly<Record<string, Target>> = {
  'every-kind.zip': 'qti2.1',
  'midterm-export.zip': 'qti1.2',
};

/** What differs after a way through a format, by item and facet. */
async function wayThrough(
  holding: Holding,
  target: Target,
  read: (path: string) => Uint8Array | null,
): Promise<ReadonlyMap<string, string>> {
  const [bytes] = writeHolding(holding, target, read, nodePlatform).packages;
  const back = await readHolding('back.zip', bytes!, nodePlatform);
  const { pairs } = comparisonInWords(compareHoldings(holding, back));
  return new Map(
    pairs.flatMap((p) =>
      p.differences.map((d) => [`${p.source} ${d.facet}`, `${d.from} -> ${d.to}`] as const),
    ),
  );
}

describe('edited items on their way', () => {
  for (const [name, own] of Object.entries(SOURCES))
    for (const target of TARGETS)
      it(`${name} by ${target}: arrive as they were edited, or the forecast says why not`, async () => {
        const { bytes } = demoFiles().find((f) => f.name === name)!;
        const holding = await readHolding(name, bytes, nodePlatform);
        const read = await fileReader(name, bytes, nodePlatform);
        const before = new Map(holding.items.map((i) => [i.id, i]));
        const lost = await wayThrough(holding, target, read);
        const bad = new Set([...lost.keys()].map(itemIn));
        let applied = 0;
        for (const [what, make] of Object.entries(EDITS)) {
          const done = applyEdits(
            holding,
            holding.items.map((i) => ({ ...make(i), node: i.id })),
          );
          applied += done.edits.length;
          const found = [...(await wayThrough(done.holding, target, read)).keys()];
          // What a format cannot say it has said so before.
          const told = new Set(forecast(done.holding, target).map((f) => f.where.node));
          const differing =
            target === own
              ? found.filter((k) => !lost.has(k))
              : found.filter((k) => !bad.has(itemIn(k)) && !told.has(itemIn(k)));
          expect(differing, what).to.deep.equal([]);
          for (const item of done.holding.items) expectTrue(item, before.get(item.id)!, what);
        }
        expect(applied).to.be.greaterThan(100);
      });
});

const itemIn = (place: string): string => place.slice(0, place.lastIndexOf(' '));

/** An item that gave what it said still does. */
function expectTrue(item: Item, before: Item, what: string): void {
  const { best } = recognise(item);
  const gave = recognise(before).best.raw * before.scale;
  if (best.raw > 0 && Math.abs(gave - before.points) < 1e-6)
    expect(best.raw * item.scale, `${what} ${item.id}`).to.be.closeTo(item.points, 1e-6);
}
