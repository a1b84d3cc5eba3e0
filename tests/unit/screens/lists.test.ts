import { expect } from 'chai';
import type { Difference, SpokenFinding } from '@alforja/core';
import type { Waiting } from '$lib/shared/desk';
import type { TransferLine } from '$lib/shared/transfers';
import { termCounts } from '../../../src/lib/ui/courses/terms.ts';
import { waitingGroups } from '../../../src/lib/ui/desk/waits.ts';
import { sorted } from '../../../src/lib/ui/lines.ts';
import { spansOf } from '../../../src/lib/ui/seam/spans.ts';
import { lossView, namedOf } from '../../../src/lib/shared/losses.ts';

const line = (id: string, over: Partial<TransferLine> = {}): TransferLine => ({
  kind: 'transfer',
  id,
  title: id,
  from: 'week5.imscc',
  state: 'draft',
  createdAt: 1,
  lastAt: 1,
  counts: null,
  open: 0,
  accepted: 0,
  takenBack: null,
  trouble: null,
  ...over,
});

describe('the list of transfers', () => {
  const lines = [
    line('Éxam 10', { createdAt: 3, state: 'done' }),
    line('exam 2', { createdAt: 2, state: 'open', from: 'b' }),
    line('Tides', { createdAt: 5, state: 'stopped', from: 'a' }),
  ];
  const order = (sort: Parameters<typeof sorted>[1]): string[] => sorted(lines, sort).map((l) => l.id);
  it('sorts by every column, both ways', () => {
    expect(order('-begun')).to.deep.equal(['Tides', 'Éxam 10', 'exam 2']);
    expect(order('begun')).to.deep.equal(['exam 2', 'Éxam 10', 'Tides']);
    expect(order('title')).to.deep.equal(['exam 2', 'Éxam 10', 'Tides']);
    expect(order('-title')).to.deep.equal(['Tides', 'Éxam 10', 'exam 2']);
    expect(order('state')).to.deep.equal(['Tides', 'exam 2', 'Éxam 10']);
    expect(order('from')).to.deep.equal(['Tides', 'exam 2', 'Éxam 10']);
  });
});

describe('what waits on the desk', () => {
  const waiting = (sort: Waiting['sort'], n: number): Waiting[] =>
    Array.from({ length: n }, (_, k) => ({
      sort,
      name: `${sort} ${k}`,
      says: '',
      next: 'Open',
      href: '/',
      at: k,
    }));
  it('keeps its order, and shows the first few of a sort and how many more there are', () => {
    const groups = waitingGroups([...waiting('stopped', 1), ...waiting('draft', 9)]);
    expect(groups.map((g) => [g.sort, g.shown.length, g.more])).to.deep.equal([
      ['stopped', 1, 0],
      ['draft', 4, 5],
    ]);
    expect(groups[1]!.href).to.equal('/transfers?state=draft');
    expect(waitingGroups([])).to.deep.equal([]);
  });
});

describe('losses by sort', () => {
  const loss = (
    code: string,
    message: string,
    severity: 'error' | 'warning' | 'note',
    node: string | null = null,
  ) => ({ code, message, severity, hint: '', where: { node } }) as unknown as SpokenFinding;
  const named = (id: string) => ({ name: `Named ${id}`, seq: null });
  it('puts the worst first, and says the same words once with all their places', () => {
    const losses = [
      loss('loss-feedback', 'hints go', 'warning', 'a'),
      loss('loss-kind', 'no slider', 'error', 'b'),
      loss('loss-feedback', 'hints go', 'warning', 'c'),
      loss('never-heard-of', 'x', 'note'),
      loss('loss-draw', 'look', 'note', 'q'),
    ];
    const { real, notes, draws } = lossView(losses, named);
    expect(
      real.sorts.map((s) => [s.name, s.count, s.groups.map((g) => g.places.map((p) => p.name))]),
    ).to.deep.equal([
      ['Kinds of questions', 1, [['Named b']]],
      ['Feedback', 2, [['Named a', 'Named c']]],
    ]);
    expect(notes.sorts.map((s) => [s.name, s.groups[0]!.placed])).to.have.deep.members([
      ['Others', 0],
      ['Draws', 1],
    ]);
    expect([real.count, notes.count, draws]).to.deep.equal([3, 2, 1]);
    expect(namedOf(losses).sort()).to.deep.equal(['a', 'b', 'c', 'q']);
  });

  it('brings the first places of very many, counts all, and keeps every way to avoid them', () => {
    const avoid = (at: number) => ({ at, says: 'becomes text', scores: null });
    const many = Array.from({ length: 5000 }, (_, at) => ({
      ...loss('loss-kind', `no slider of sort ${at % 100}`, 'warning', `item-${at}`),
      ...(at % 1000 === 0 ? { avoid: avoid(at) } : {}),
    }));
    const { real } = lossView(many, named);
    const [sort] = real.sorts;
    expect([real.count, sort!.count, sort!.groups.length + sort!.more]).to.deep.equal([5000, 5000, 100]);
    expect(sort!.groups.every((g) => g.count === 50 && g.placed === 50)).to.equal(true);
    expect(sort!.groups[0]!.avoid.map((a) => a.at)).to.deep.equal([0, 1000, 2000, 3000, 4000]);
    expect(JSON.stringify(real).length).to.be.below(200_000);
    expect(namedOf(many).length).to.equal(
      sort!.groups.reduce((sum, g) => sum + g.places.length, 0),
      'names are asked for what is shown',
    );
  });
});

describe('a tolerance as a number line', () => {
  const numeric = (value: number, low?: number, high?: number): object => ({
    shape: {
      kind: 'numeric',
      points: 2,
      value,
      stated: true,
      tolerance:
        low === undefined ? null : { mode: 'range', low, high, includesLow: true, includesHigh: false },
    },
    points: 2,
    names: {},
  });
  const difference = (from: object, to: object, response: object | null): Difference =>
    ({
      facet: 'tolerance',
      from,
      to,
      example: response && { response, from: 2, to: 0 },
    }) as unknown as Difference;

  it('draws both sides to one measure, with the answer that scores otherwise', () => {
    const pair = spansOf(difference(numeric(3.3, 3.2, 3.4), numeric(3.3), { r: [3.35] }))!;
    expect([pair.from.low, pair.from.high, pair.from.includesHigh]).to.deep.equal([3.2, 3.4, false]);
    expect([pair.to.low, pair.to.high, pair.to.value]).to.deep.equal([3.3, 3.3, 3.3]);
    expect(pair.answer).to.equal(3.35);
    expect(pair.least).to.be.lessThan(3.2);
    expect(pair.most).to.be.greaterThan(3.4);
  });

  it('has room where nothing but one number is known, and nothing to draw for other differences', () => {
    const alone = spansOf(difference(numeric(0), numeric(0), null))!;
    expect(alone.least).to.be.lessThan(alone.most);
    expect(spansOf({ facet: 'title', from: 'a', to: 'b' } as unknown as Difference)).to.equal(null);
    expect(spansOf(difference({ words: 'old' }, numeric(1), null))).to.equal(null);
    expect(spansOf(difference(numeric(1, -Infinity, 2), numeric(1), null))).to.equal(null);
  });
});

describe('the courses of a term by state', () => {
  it('are counted, and terms into which nothing goes are left out', () => {
    const courses = [
      { id: 'a', term: 'Autumn' },
      { id: 'b', term: 'Autumn' },
      { id: 'constructor', term: 'Autumn' },
      { id: 'c', term: 'Spring' },
    ];
    expect(termCounts(courses, { a: 'done', b: 'draft' })).to.deep.equal([
      { term: 'Autumn', counts: { done: 1, open: 0, stopped: 0, begun: 1, none: 1 } },
    ]);
    expect(termCounts(courses, {})).to.deep.equal([]);
  });
});
