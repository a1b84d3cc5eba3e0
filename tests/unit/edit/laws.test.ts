import { expect } from 'chai';
import fc from 'fast-check';
import {
  applyEdits,
  compareHoldings,
  interactionsOf,
  isReplaceable,
  NEAREST,
  plannedChanges,
  takenBack,
  type Edit,
  type Holding,
  type Item,
} from '@alforja/core';
import { choicesIn } from './support.ts';
import { anyHolding, words } from '../../support/arbitraries.ts';
import { settleDraws } from '../../../core/src/reading/settle.ts';
import { settlePoints } from '../../support/settled.ts';

/** A tree as a reader would give it: with points. */
const settled = anyHolding.map((h): Holding => {
  const items = settlePoints(h.items, h.quizzes);
  return { ...h, items, quizzes: settleDraws(h.quizzes, items) };
});

const pick = <T>(list: readonly T[], n: number): T => list[n % list.length]!;

/** An edit of one item, some of which will be refused. */
function editOf(item: Item, kind: number, n: number, text: string): Edit {
  const node = item.id;
  const ids = choicesIn(item);
  const choice = ids.length > 0 ? pick(ids, n) : 'none';
  const all: Edit[] = [
    { op: 'title', node, kind: 'item', to: text },
    { op: 'stem', node, to: text },
    { op: 'points', node, to: (n % 40) / 4 },
    { op: 'category', node, to: n % 3 === 0 ? null : text },
    { op: 'leave-out', node, kind: 'item' },
    { op: 'feedback', node, on: pick(['general', 'right', 'wrong', choice], n), to: text },
    { op: 'choice-text', node, choice, to: text },
    { op: 'choice-fixed', node, choice, to: n % 2 === 0 },
    { op: 'choice-add', node, choice: `new${n % 3}`, to: text, after: choice },
    { op: 'choice-drop', node, choice },
    { op: 'choice-order', node, to: ids.length > 0 ? ids.toReversed() : ['none'] },
    { op: 'key', node, to: ids.length > 0 ? [choice] : [n % 2 === 0 ? n / 8 : text] },
    { op: 'accept', node, to: [{ text }, { text: `${text} too`, points: item.points / 2 }] },
    { op: 'case', node, to: n % 2 === 0 },
    { op: 'tolerance', node, to: { mode: 'range', low: -10_000, high: 10_000 } },
    { op: 'shuffle', node, to: n % 2 === 0 },
    { op: 'move', node, to: 'bank' },
    { op: 'scoring', node, to: 'all-or-nothing' },
    { op: 'feedback-plain', node, hints: true },
    { op: 'answers', node, to: n % 2 === 0 ? 'several' : 'one' },
    ...interactionsOf(item)
      .map((i) => i.kind)
      .filter(isReplaceable)
      .map((from): Edit => ({ op: 'kind', node, from, to: NEAREST[from] })),
  ];
  return pick(all, kind);
}

const quizEdit = (quiz: Holding['quizzes'][number], kind: number, n: number, text: string): Edit => {
  const node = quiz.id;
  const all: Edit[] = [
    { op: 'title', node, kind: 'quiz', to: text },
    { op: 'settings', node, to: { attempts: (n % 5) + 1, timeLimitMinutes: n % 2 ? 20 : null } },
    { op: 'settings', node, to: { instructions: text } },
    { op: 'draw', node, section: 'Drawn', to: { pointsEach: (n % 8) + 1 } },
    { op: 'section-title', node, section: 0, to: text },
    { op: 'section-add', node, id: 'more', to: text, after: null },
    { op: 'test-plain', node },
  ];
  return pick(all, kind);
};

const seeds = fc.tuple(fc.nat(1000), fc.nat(1000), words);
const withLayer = fc
  .tuple(settled, fc.array(fc.tuple(fc.nat(100), seeds), { minLength: 1, maxLength: 8 }))
  .map(([holding, list]) => ({
    holding,
    layer: list.map(([at, [kind, n, text]]): Edit =>
      at % 4 === 0
        ? quizEdit(holding.quizzes[0]!, kind, n, text)
        : editOf(pick(holding.items, at), kind, n, text),
    ),
  }));

const frozen = <T>(value: T): T => {
  if (typeof value === 'object' && value !== null && !Object.isFrozen(value)) {
    Object.freeze(value);
    Object.values(value).forEach(frozen);
  }
  return value;
};

describe('laws of edits', () => {
  it('leave the source as it was: without its edits it is what it was', () => {
    fc.assert(
      fc.property(withLayer, ({ holding, layer }) => {
        frozen(holding);
        const before = JSON.stringify(holding);
        applyEdits(holding, layer);
        expect(JSON.stringify(holding)).to.equal(before);
        expect(applyEdits(holding, []).holding).to.equal(holding);
      }),
      { numRuns: 150 },
    );
  });

  it('applied and taken back again, nothing is different', () => {
    fc.assert(
      fc.property(withLayer, fc.nat(10), ({ holding, layer }, n) => {
        const { edits } = applyEdits(holding, layer);
        if (edits.length === 0) return;
        // The last one undone is the layer without it; all undone, one by one, is the source.
        const last = edits.slice(0, -1);
        expect(applyEdits(holding, takenBack(edits, edits.length - 1)).holding).to.deep.equal(
          applyEdits(holding, last).holding,
        );
        let rest: readonly Edit[] = edits;
        while (rest.length > 0) rest = takenBack(rest, n % rest.length);
        expect(applyEdits(holding, rest).holding).to.equal(holding);
      }),
      { numRuns: 150 },
    );
  });

  it('twice is once: the second time there is nothing to do', () => {
    fc.assert(
      fc.property(withLayer, ({ holding, layer }) => {
        const once = applyEdits(holding, layer);
        // As a list that somebody gives, edits say what is wanted and nothing else.
        const last = new Map(
          once.edits.map((e) => [`${e.op} ${e.node ?? ''} ${'choice' in e ? e.choice : ''}`, e]),
        );
        const twice = applyEdits(once.holding, [...last.values()]);
        const about = (h: Holding): unknown => ({ ...h, findings: [] });
        if (once.edits.length === last.size && once.edits.length === 1)
          expect(about(twice.holding)).to.deep.equal(about(once.holding));
        expect(applyEdits(holding, once.edits).holding).to.deep.equal(once.holding);
        expect(applyEdits(holding, once.edits).refused).to.deep.equal([]);
      }),
      { numRuns: 200 },
    );
  });

  it('of different nodes come to the same in either order', () => {
    fc.assert(
      fc.property(settled, seeds, seeds, fc.nat(50), fc.boolean(), (holding, a, b, at, withQuiz) => {
        const first = editOf(pick(holding.items, at), ...a);
        const second = withQuiz
          ? quizEdit(holding.quizzes[0]!, ...b)
          : editOf(pick(holding.items, at + 1), ...b);
        expect(applyEdits(holding, [first, second]).holding).to.deep.equal(
          applyEdits(holding, [second, first]).holding,
        );
      }),
      { numRuns: 400 },
    );
  });

  it('change nothing outside of the node they name', () => {
    fc.assert(
      fc.property(settled, seeds, fc.nat(50), (holding, seed, at) => {
        const item = pick(holding.items, at);
        const edit = editOf(item, ...seed);
        const after = applyEdits(holding, [edit]).holding;
        const others = compareHoldings(holding, after).pairs.filter((p) => p.source !== item.id);
        expect(others.flatMap((p) => p.differences)).to.deep.equal([]);
        for (const one of after.items)
          if (one.id !== item.id) expect(one).to.equal(holding.items.find((i) => i.id === one.id));
        const changed = plannedChanges(holding, after).filter((c) => c.kind === 'item');
        expect(changed.every((c) => c.node === item.id)).to.equal(true);
      }),
      { numRuns: 250 },
    );
  });

  it('are anchored to what they saw: elsewhere they are refused, and said to be stale', () => {
    fc.assert(
      fc.property(settled, seeds, fc.nat(50), words, (holding, [, n], at, text) => {
        const { id } = pick(holding.items, at);
        const titled = applyEdits(holding, [{ op: 'title', node: id, kind: 'item', to: `${text} ${n}` }]);
        const moved = {
          ...holding,
          items: holding.items.map((i) => (i.id === id ? { ...i, title: `${text} read anew` } : i)),
        };
        const again = applyEdits(moved, titled.edits);
        expect(again.refused.map((r) => r.why.refused)).to.deep.equal(['stale']);
        expect(again.holding).to.equal(moved);
      }),
      { numRuns: 60 },
    );
  });
});
