import { expect } from 'chai';
import {
  compareHoldings,
  courseMends,
  differenceId,
  differencesOf,
  fileMends,
  landingId,
  mergedChanges,
  pouchRows,
  speakDifference,
  tallyOf,
  TROUBLES,
  type ArrivalFacts,
  type Holding,
  type Landing,
  type Subject,
  type Trouble,
} from '@alforja/core';
import { assessmentXml, PLAIN } from '../../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../../demo/items.ts';
import { DEFAULT_OPTIONS } from '../../../src/lib/shared/transfers.ts';
import { read } from '../../support/read.ts';

type Spec = (typeof TIDAL_EXAM)[number];
const quiz = (items: readonly Spec[], title = 'Exam'): Promise<Holding> =>
  read(assessmentXml({ id: 'q', title, items }, PLAIN));
async function arrivalOf(
  planned: readonly Spec[],
  arrived: readonly Spec[],
  title?: string,
): Promise<ArrivalFacts> {
  const [a, b] = [await quiz(planned), await quiz(arrived, title)];
  return {
    comparison: compareHoldings(a, b),
    left: pouchRows(a.items),
    right: pouchRows(b.items),
    names: { 'quiz q': 'The exam' },
    landing: null,
  };
}
const five = TIDAL_EXAM.slice(0, 5);
const dearer =
  (id: string) =>
  (i: Spec): Spec =>
    i.id === id ? { ...i, points: 9 } : i;
const landing: Landing = {
  kind: 'quiz',
  node: 'q',
  name: 'The exam',
  section: 's2',
  sectionBy: 'name',
  existing: 'none',
  there: null,
  action: 'add',
  hidden: true,
  opens: null,
  closes: null,
  review: 'later',
};

describe('the differences of an arrival', () => {
  it('are none where nothing differs', async () => {
    const arrival = await arrivalOf(five, five);
    expect(differencesOf(arrival)).to.deep.equal([]);
    expect(tallyOf(arrival, [])).to.deep.include({ verdict: 'intact', open: 0 });
  });

  it('name items by what people see, containers by what they were to be called', async () => {
    const arrival = await arrivalOf(five, five.slice(0, 4).map(dearer('tide-02')), 'Another title');
    const said = differencesOf(arrival).map((d) => speakDifference(d, arrival));
    const missing = said.find((s) => s.found === 'missing')!;
    expect([missing.what, missing.planned]).to.deep.equal([arrival.left[4]!.name, 'there']);
    expect(
      said.some((s) => s.what === 'The exam, title' && s.planned === 'Exam' && s.found === 'Another title'),
    ).to.equal(true);
    expect(said.some((s) => s.planned.includes('points:'))).to.equal(true);
  });

  it('have names of their own that stay the same, whatever the order', async () => {
    const one = await arrivalOf(five, five.slice(0, 3).map(dearer('tide-01')));
    const other = await arrivalOf(
      [...five].reverse(),
      [...five.slice(0, 3).map(dearer('tide-01'))].reverse(),
    );
    const ids = (a: ArrivalFacts): string[] =>
      differencesOf(a)
        .filter((d) => d.subject.about === 'item')
        .map((d) => d.id)
        .sort();
    expect(ids(one)).to.deep.equal(ids(other));
    expect(new Set(differencesOf(one).map((d) => d.id)).size).to.equal(differencesOf(one).length);
  });

  it('are open until somebody has decided', async () => {
    const arrival = await arrivalOf(five, five.slice(0, 4));
    const all = differencesOf(arrival);
    expect(tallyOf(arrival, []).open).to.equal(all.length);
    expect(
      tallyOf(
        arrival,
        all.map((d) => d.id),
      ).open,
    ).to.equal(0);
    expect(tallyOf(arrival, ['no such difference']).open).to.equal(all.length);
  });

  const trouble = (kind: Trouble['trouble']): Trouble => ({
    trouble: kind,
    kind: 'quiz',
    node: 'q',
    thing: 't1',
    name: 'The exam',
    planned: { words: 'a' },
    found: { words: 'b' },
  });
  it('of the landing have words for every kind of trouble', async () => {
    const arrival = await arrivalOf(five, five);
    for (const kind of TROUBLES) {
      const subject: Subject = { about: 'landing', trouble: trouble(kind) };
      const { what } = speakDifference({ id: differenceId(subject), subject }, arrival);
      expect(what, kind).to.match(/^The exam, [a-z ]+$/u);
    }
  });

  it('leave names to the landing where there is one', async () => {
    const arrival = await arrivalOf(five, five, 'Another title');
    const inCourse = { ...arrival, landing: { troubles: [], outline: { sections: [], things: [] } } };
    expect(differencesOf(arrival).length).to.equal(1);
    expect(differencesOf(inCourse)).to.deep.equal([]);
  });
});

describe('mends', () => {
  const plan = async () => {
    const { items: _, ...tree } = await quiz(five);
    return { tree, landings: [landing], settings: DEFAULT_OPTIONS.settings, losses: [] };
  };
  const course = { landed: { 'quiz q': 't1' }, attachments: {}, created: ['t1'] };

  it('of a file are a package of just that', async () => {
    const arrival = await arrivalOf(five, [...five.slice(0, 4).map(dearer('tide-01')), TIDAL_EXAM[7]!]);
    const mends = fileMends(arrival);
    const ticks = [...mends.values()].flatMap((m) => (m.do === 'write' ? m.ticks : []));
    expect(
      ticks
        .filter((t) => t.kind === 'item')
        .map((t) => t.nodeId)
        .sort(),
    ).to.deep.equal(['tide-01', 'tide-05']);
    const extra = differencesOf(arrival).find(
      (d) => d.subject.about === 'item' && d.subject.state === 'extra',
    )!;
    expect(mends.has(extra.id), 'what is extra cannot be sent').to.equal(false);
  });

  it('of points alone are set in the course; the rest is sent again', async () => {
    const points = await arrivalOf(five, five.map(dearer('tide-01')));
    const set = [...courseMends(points, await plan(), course).values()].find((m) => m.do === 'set');
    expect(set).to.deep.include({ thing: 't1' });
    const gone = await arrivalOf(five, five.slice(0, 4));
    const mends = courseMends(gone, await plan(), course);
    const missing = differencesOf(gone).find((d) => d.subject.about === 'item')!;
    expect(mends.get(missing.id)).to.deep.equal({ do: 'resend', landings: ['quiz q'] });
  });

  it('never send again what this transfer did not make', async () => {
    const gone = await arrivalOf(five, five.slice(0, 4));
    const mends = courseMends(gone, await plan(), { ...course, created: [] });
    expect([...mends.values()].filter((m) => m.do === 'resend')).to.deep.equal([]);
  });

  const troubles: readonly [Trouble['trouble'], object | undefined][] = [
    ['section', { do: 'set', thing: 't1', change: { section: 's2' } }],
    ['name', { do: 'set', thing: 't1', change: { title: 'The exam' } }],
    ['visibility', { do: 'set', thing: 't1', change: { hidden: true } }],
    ['review', { do: 'set', thing: 't1', change: { review: 'later' } }],
    ['copy', { do: 'remove', thing: 't1' }],
    ['extra', { do: 'remove', thing: 't1' }],
    ['not-there', { do: 'resend', landings: [landingId(landing)] }],
  ];
  for (const [kind, wanted] of troubles)
    it(`of a landing: ${kind}`, async () => {
      const trouble: Trouble = {
        trouble: kind,
        kind: 'quiz',
        node: 'q',
        thing: 't1',
        name: 'x',
        planned: { words: 'a' },
        found: { words: 'b' },
      };
      const arrival = {
        ...(await arrivalOf(five, five)),
        landing: { troubles: [trouble], outline: { sections: [], things: [] } },
      };
      const [mend] = courseMends(arrival, await plan(), course).values();
      expect(mend).to.deep.equal(wanted);
    });

  it('do not send again a link that the format has no place for', async () => {
    const trouble: Trouble = {
      trouble: 'not-there',
      kind: 'link',
      node: 'l1',
      thing: null,
      name: 'x',
      planned: { words: 'a' },
      found: { words: 'b' },
    };
    const arrival = {
      ...(await arrivalOf(five, five)),
      landing: { troubles: [trouble], outline: { sections: [], things: [] } },
    };
    const loss = {
      code: 'loss-link',
      severity: 'warning',
      params: { what: 'x' },
      where: { path: null, line: null, column: null, node: 'l1' },
    } as const;
    expect(courseMends(arrival, { ...(await plan()), losses: [loss] }, course).size).to.equal(0);
  });

  it('of one thing are one change', () => {
    const changes = mergedChanges([
      { do: 'set', thing: 't1', change: { title: 'A', points: [{ item: 'a', points: 1 }] } },
      { do: 'remove', thing: 't2' },
      { do: 'set', thing: 't1', change: { hidden: false, points: [{ item: 'b', points: 2 }] } },
    ]);
    expect([...changes]).to.deep.equal([
      [
        't1',
        {
          title: 'A',
          hidden: false,
          points: [
            { item: 'a', points: 1 },
            { item: 'b', points: 2 },
          ],
        },
      ],
    ]);
  });
});
