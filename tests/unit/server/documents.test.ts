import { expect } from 'chai';
import fc from 'fast-check';
import { compareHoldings, comparisonInWords, sayDifference, speak, type Finding } from '@alforja/core';
import { sayTrouble } from '../../../core/src/report/troubles.ts';
import { aboutCodec, listingCodec } from '../../../src/lib/server/store/documents/courses.ts';
import {
  findingCodec,
  itemCodec,
  summaryCodec,
  treeCodec,
} from '../../../src/lib/server/store/documents/packages.ts';
import {
  arrivalCodec,
  decisionsCodec,
  optionsCodec,
  overridesCodec,
  planCodec,
  sendingCodec,
  sentCodec,
} from '../../../src/lib/server/store/documents/transfers.ts';
import { anyHolding } from '../../support/arbitraries.ts';
import { DEFAULT_OPTIONS } from '../../../src/lib/shared/transfers.ts';

/** Documents as the version before this one wrote them. */
const json = JSON.stringify;
const totals = { items: 1, points: 2, quizzes: 1, banks: 0, draws: 0, files: 0 };
const landing = {
  kind: 'quiz',
  node: 'q1',
  name: 'Exam',
  section: 's1',
  sectionBy: 'name',
  existing: 'none',
  there: null,
  action: 'add',
  hidden: true,
  opens: null,
  closes: null,
  review: null,
};
const step = { name: 'export', state: 'done', startedAt: 1, endedAt: 2, says: 'both courses' };
const oldRun = {
  id: 'r1',
  by: 'Nerea Sal',
  only: ['quiz q1'],
  startedAt: 1,
  endedAt: 2,
  steps: [step],
  imports: [],
  unseen: [],
  created: ['t1'],
  setAside: [],
  notes: [],
  failure: 'The destination broke off.',
  sectionsAs: 'source',
  undone: null,
};

describe('documents of older versions', () => {
  it('a plan knows its format and losses, and is made again', () => {
    const plan = planCodec.read(json({ key: 'old', landings: [landing], troubles: ['no section'] }));
    expect(plan).to.deep.include({ target: 'qti2.1', findings: [], troubles: ['no section'] });
    expect(plan.landings[0]!.name).to.equal('Exam');
    expect(plan).not.to.have.property('key');
  });

  it('a sending says as data what it is about and why it failed', () => {
    const sending = sendingCodec.read(json(oldRun));
    expect(sending.only).to.deep.equal({ landings: ['quiz q1'] });
    expect(sending.failure).to.deep.equal({ reason: 'other', detail: 'The destination broke off.' });
    expect(sending.attached).to.deep.equal([]);
    expect(sendingCodec.read(json({ ...oldRun, only: null, failure: null }))).to.deep.include({
      only: null,
      failure: null,
    });
  });

  it('a sending that was taken back names who is known to have sent it', () => {
    const undone = { at: 5, removed: ['Exam'], refused: [] };
    const sending = sendingCodec.read(
      json({ $v: 2, ...oldRun, only: null, failure: null, attached: [], undone }),
    );
    expect(sending.undone).to.deep.equal({ ...undone, by: 'Nerea Sal' });
    expect(sending.checkedBy).to.equal(null);
  });

  it('a finding keeps its meaning under the code it has now', () => {
    const old = { code: 'maximum-below-points', severity: 'warning', params: { found: '1', stated: '2' } };
    const where = { path: null, line: null, column: null, node: 'i1' };
    const plan = planCodec.read(
      json({
        $v: 2,
        basis: 'b',
        landings: [],
        target: 'qti2.1',
        findings: [{ ...old, where }],
        troubles: [],
      }),
    );
    expect(speak(plan.findings[0]!).message).to.contain('The best answer scores 1');
    const unknown = { ...plan.findings[0]!, code: 'of-another-version' } as unknown as Finding;
    expect(speak(unknown).message).to.equal('of-another-version');
  });

  it('what was sent is one list of files', () => {
    const rest = { items: 3, points: 4, findings: [], target: 'cc1.3', ticks: [] };
    const file = { sha256: 'aa', bytes: 5, name: 'one.imscc' };
    const other = { sha256: 'bb', bytes: 6, name: 'two.imscc' };
    expect(sentCodec.read(json({ ...rest, ...file, more: [other] })).parts).to.deep.equal([file, other]);
    const nothing = { sha256: '', bytes: 0, name: '', more: [other] };
    expect(sentCodec.read(json({ ...rest, ...nothing })).parts).to.deep.equal([other]);
    expect(sentCodec.read(json({ ...rest, ...nothing })).again).to.deep.equal([]);
  });

  const comparison = {
    verdict: 'intact',
    counts: { intact: 1, altered: 0, missing: 0, extra: 0 },
    pairs: [{ source: 'i1', arrived: 'i1', state: 'intact', by: 'identifier', differences: [] }],
    missing: [],
    extra: [],
    containers: [],
    missingFiles: [],
  };
  const oldArrival = {
    comparison,
    left: [],
    right: [],
    totals: { left: totals, right: totals },
    sentSha256: 'aa',
    arrivedSha256: 'bb',
  };

  it('an arrival of a file has names and notes of its own, and counts rubrics', () => {
    const arrival = arrivalCodec.read(json({ ...oldArrival, landing: null }));
    expect(arrival).to.deep.include({ landing: null, names: {}, notes: [], rubrics: [] });
    expect(arrival.totals.left.rubrics).to.equal(0);
  });

  it('an arrival in a course keeps the names and notes that stood with its landing', () => {
    const arrival = arrivalCodec.read(
      json({
        ...oldArrival,
        landing: {
          troubles: [],
          landed: { 'quiz q1': 't1' },
          names: { 'quiz q1': 'Exam' },
          outline: { sections: [], things: [] },
          notes: ['It took its time.'],
        },
      }),
    );
    expect(arrival.names).to.deep.equal({ 'quiz q1': 'Exam' });
    expect(arrival.notes).to.deep.equal(['It took its time.']);
    expect(arrival.landing).to.deep.include({ attachments: {}, landed: { 'quiz q1': 't1' } });
    expect(arrival.landing).not.to.have.property('notes');
  });

  it('an arrival keeps in its words what was said before both sides were data', () => {
    const differs = { facet: 'key', from: 'Port', to: 'Starboard', example: null };
    const trouble = { trouble: 'section', kind: 'quiz', node: 'q1', thing: 't1', name: 'Exam' };
    const arrival = arrivalCodec.read(
      json({
        ...oldArrival,
        comparison: {
          ...comparison,
          pairs: [{ ...comparison.pairs[0], state: 'altered', differences: [differs] }],
          containers: [
            { kind: 'quiz', source: 'q1', arrived: 't1', state: 'altered', differences: [differs] },
          ],
        },
        landing: {
          troubles: [{ ...trouble, planned: 'Week 1', found: 'Week 2' }],
          landed: {},
          outline: { sections: [], things: [] },
        },
      }),
    );
    const [said] = arrival.comparison.pairs[0]!.differences;
    expect(sayDifference(said!)).to.deep.equal(differs);
    expect(sayDifference(arrival.comparison.containers[0]!.differences[0]!)).to.deep.equal(differs);
    expect(sayTrouble(arrival.landing!.troubles[0]!)).to.deep.equal({ planned: 'Week 1', found: 'Week 2' });
    expect(arrivalCodec.read(arrivalCodec.write(arrival))).to.deep.equal(arrival);
  });

  it('whatever differs between two packages is kept as it was found', () =>
    fc.assert(
      fc.property(anyHolding, anyHolding, (a, b) => {
        // The same identifiers, so that items and quizzes answer to each other and differ.
        const there = {
          ...b,
          items: b.items.map((item, at) => ({ ...item, id: a.items[at]?.id ?? item.id })),
        };
        const found = compareHoldings(a, there);
        const empty = arrivalCodec.read(json({ ...oldArrival, landing: null }));
        const kept = arrivalCodec.read(arrivalCodec.write({ ...empty, comparison: found }));
        expect(comparisonInWords(kept.comparison)).to.deep.equal(comparisonInWords(found));
        expect(kept.comparison).to.deep.equal(found);
      }),
      { numRuns: 60 },
    ));

  it('systems and courses of before rubrics were asked for have none', () => {
    const user = { id: 'u', name: 'N', email: '', role: 'teacher' };
    expect(aboutCodec.read(json({ name: 'Q', takes: ['cc1.3'], gives: 'x', user })).rubrics).to.equal(null);
    const course = {
      id: 's:c',
      systemId: 's',
      system: 'Q',
      title: 'Tides',
      code: '',
      section: '',
      term: '',
      termStart: '',
      termEnd: '',
      people: [],
      quizzes: 0,
      banks: 0,
      links: 0,
      items: 0,
      openAttempts: 0,
      mayChange: true,
      own: true,
    };
    expect(listingCodec.read(json(course)).rubrics).to.equal(0);
  });

  it('packages of before rubrics were read have none', () => {
    const tree = {
      source: { name: 'a', bytes: 1, sha256: 'aa' },
      format: { container: 'xml', standard: 'qti', version: '1.2' },
      title: '',
      quizzes: [],
      banks: [],
      links: [],
      files: [],
      outline: [],
      findings: [],
    };
    expect(treeCodec.read(json(tree)).rubrics).to.deep.equal([]);
    const { rubrics, origin } = summaryCodec.read(
      json({
        title: '',
        format: tree.format,
        items: 1,
        points: 1,
        quizzes: 0,
        banks: 0,
        errors: 0,
        warnings: 0,
        notes: 0,
      }),
    );
    expect([rubrics, origin]).to.deep.equal([0, 'standard fields only']);
  });

  const item = { id: 'i1', title: '', body: [], responses: [], outcomes: [], scoring: {}, points: 1 };
  const element = { path: 'a.xml', line: 3, column: 5, xml: '<item/>' };

  it('an item of before origins were of several kinds stands at an element of XML', () => {
    expect(itemCodec.read(json({ ...item, origin: element })).origin).to.deep.equal({
      kind: 'xml',
      ...element,
    });
    expect(itemCodec.read(json({ ...item, origin: null })).origin).to.equal(null);
    const block = { kind: 'block', path: 'a.docx', block: 4, page: 2, text: '1. Why?' } as const;
    const now = itemCodec.read(json({ ...item, origin: null }));
    expect(itemCodec.read(itemCodec.write({ ...now, origin: block })).origin).to.deep.equal(block);
  });

  it('a tree of before then has quizzes at elements and rubrics at lines', () => {
    const tree = treeCodec.read(
      json({
        source: { name: 'a', bytes: 1, sha256: 'aa' },
        format: { container: 'zip', standard: 'qti', version: '1.2' },
        title: '',
        quizzes: [{ id: 'q', title: '', settings: {}, sections: [], origin: element }],
        banks: [{ id: 'b', title: '', items: [], origin: null }],
        rubrics: [
          {
            id: 'r',
            title: '',
            description: '',
            mode: 'points',
            criteria: [],
            attachedTo: [],
            origin: { path: 'r.csv', line: 4, column: 1, xml: '' },
          },
        ],
        links: [],
        files: [],
        outline: [],
        findings: [],
      }),
    );
    expect(tree.quizzes[0]!.origin).to.deep.equal({ kind: 'xml', ...element });
    expect(tree.banks[0]!.origin).to.equal(null);
    expect(tree.rubrics[0]!.origin).to.deep.equal({ kind: 'line', path: 'r.csv', line: 4 });
  });

  it('a finding under an older code has the words of today', () => {
    const where = { path: null, line: null, column: null, node: null };
    const old = { code: 'carry-failed', severity: 'error', where, params: { detail: 'x' } };
    expect(findingCodec.read(json(old)).code).to.equal('sending-failed');
  });

  it('choices, changes by hand and decisions are as they were', () => {
    expect(optionsCodec.read(json(DEFAULT_OPTIONS))).to.deep.equal(DEFAULT_OPTIONS);
    const overrides = { 'quiz q1': { name: 'Mock exam', section: null } };
    expect(overridesCodec.read(json(overrides))).to.deep.equal(overrides);
    const decisions = [{ key: 'item i1', reason: 'on purpose', by: 'N', at: 3 }];
    expect(decisionsCodec.read(json(decisions))).to.deep.equal(decisions);
  });
});
