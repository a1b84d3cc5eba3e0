import { expect } from 'chai';
import { compareHoldings, comparisonInWords, sayDifference, type Facet, type SaidOf } from '@alforja/core';
import { sayTrouble } from '../../../core/src/report/troubles.ts';
import { troubleWith, type TroubleKind, type TroubleSaidOf } from '../../../core/src/landing/trouble.ts';
import { difference } from '../../../core/src/compare/differences.ts';
import { read } from '../../support/read.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { TIDAL_EXAM } from '../../../demo/items.ts';

const says = <F extends Facet>(facet: F, from: SaidOf[F], to: SaidOf[F]): [string, string] => {
  const said = sayDifference(difference(facet, from, to));
  return [said.from, said.to];
};
const choices = (shuffled: boolean, ...pinned: string[]) => ({ of: 'choices' as const, shuffled, pinned });
const section = (shuffled: boolean) => ({ of: 'section' as const, shuffled });

describe('differences in words', () => {
  const cases: readonly (readonly [what: string, said: [string, string], words: [string, string]])[] = [
    ['a title that is gone', says('title', 'Tides', ''), ['Tides', '']],
    [
      'kinds',
      says('kind', [{ kind: 'choice', single: true }], [{ kind: 'choice', single: false }]),
      ['choice (one answer)', 'choice (several answers)'],
    ],
    [
      'choices',
      says('choices', [{ texts: ['a', 'b'] }, { low: 0, high: 10, step: 1 }], [{ areas: ['circle 1,1,2'] }]),
      ['a / b; 0 to 10, step 1', 'circle 1,1,2'],
    ],
    [
      'the order of choices',
      says('choice-order', [['a', 'b'], ['c']], [['b', 'a'], ['c']]),
      ['a / b; c', 'b / a; c'],
    ],
    [
      'shuffled choices',
      says('shuffle', [choices(true, 'D', 'E')], [choices(false)]),
      ['shuffled, pinned: D, E', 'in order'],
    ],
    [
      'shuffled sections',
      says('shuffle', [section(true), section(false)], [section(false)]),
      ['random order / fixed order', 'fixed order'],
    ],
    ['keys', says('key', ['Left', 'Up'], []), ['Left; Up', 'no key']],
    [
      'points',
      says('points', { points: 0.1 + 0.2, percentage: false }, { points: null, percentage: false }),
      ['0.3', 'not scored'],
    ],
    [
      'points by percentage',
      says('points', { points: 60, percentage: true }, { points: 60, percentage: false }),
      ['60, by percentage', '60'],
    ],
    [
      'files',
      says('files', { files: [{ path: 'a.png', present: false }] }, { files: [] }),
      ['a.png (missing)', 'none'],
    ],
    ['alternative texts', says('files', { alternatives: ['A buoy'] }, { alternatives: [] }), ['A buoy', '']],
    ['attempts', says('attempts', 'unlimited', null), ['unlimited', 'not set']],
    ['a time limit', says('time-limit', 90, null), ['90 minutes', 'not set']],
    [
      'dates',
      says('dates', { opens: '2026-11-26', closes: null }, { opens: null, closes: null }),
      ['2026-11-26 to not set', 'not set to not set'],
    ],
    [
      'draws',
      says(
        'draw',
        [{ pick: 5, of: 12, pointsEach: 2, withReplacement: false }],
        [{ pick: 5, of: 12, pointsEach: null, withReplacement: true }],
      ),
      ['5 of 12, 2 points each', '5 of 12, ? points each, with repeats'],
    ],
    [
      'which items are in it',
      says('membership', { items: 12, only: ['Springs'] }, { items: 11, only: [] }),
      ['12 items, only here: Springs', '11 items'],
    ],
    [
      'their order',
      says('membership', { order: ['a', 'b'] }, { order: ['b', 'a'] }),
      ['order: a, b', 'order: b, a'],
    ],
    [
      'criteria',
      says(
        'criteria',
        { criteria: [{ title: 'Fixes', description: 'on the chart', weight: 2 }] },
        { criteria: [{ title: 'Fixes', description: '', weight: 1 }] },
      ),
      ['Fixes, on the chart, weight 2', 'Fixes'],
    ],
    [
      'levels',
      says(
        'levels',
        [
          {
            criterion: 'Fixes',
            levels: [{ title: 'Good', points: { low: 4, high: 5 }, description: 'all', feedback: '' }],
          },
        ],
        [{ criterion: 'Fixes', levels: [{ title: '', points: null, description: '', feedback: '' }] }],
      ),
      ['Fixes: Good, 4 to 5, all', 'Fixes: nothing'],
    ],
  ];
  for (const [what, said, words] of cases)
    it(`speak of ${what}`, () => {
      expect(said).to.deep.equal(words);
    });

  it('keep the words of a record of before they were data', () => {
    const old = { facet: 'key', from: { words: 'Port' }, to: { words: 'Starboard' }, example: null } as const;
    expect(sayDifference(old)).to.deep.equal({ facet: 'key', from: 'Port', to: 'Starboard', example: null });
  });

  it('name choices in a scoring rule, not their identifiers', async () => {
    const [three] = TIDAL_EXAM.filter((i) => i.id === 'tide-03');
    const given = bankXml('b', [three!], PLAIN, 'Bank');
    const dearer = given.replace(
      /(<varequal respident="response1">A<\/varequal><\/conditionvar><setvar varname="SCORE" action="Add">)1/u,
      '$11.5',
    );
    const comparison = comparisonInWords(compareHoldings(await read(given), await read(dearer)));
    const [scoring] = comparison.pairs[0]!.differences.filter((d) => d.facet === 'scoring');
    expect(scoring!.from).to.include('1 point for each of 2 right choices');
    expect(scoring!.to).to.include('1.5 points for “White all-round light”');
  });
});

describe('troubles of a landing in words', () => {
  const about = { kind: 'quiz', node: 'q', thing: 't', name: 'The exam' } as const;
  const told = <K extends TroubleKind>(kind: K, planned: TroubleSaidOf[K], found: TroubleSaidOf[K]) =>
    Object.values(sayTrouble(troubleWith(about, kind, planned, found)));
  const cases: readonly (readonly [what: string, said: string[], words: [string, string]])[] = [
    ['a section', told('section', { section: 'Week 1' }, { section: null }), ['Week 1', 'no section']],
    ['a name', told('name', { title: 'The exam' }, { title: '' }), ['The exam', 'no name']],
    [
      'visibility',
      told('visibility', { hidden: true }, { hidden: false }),
      ['hidden from students', 'shown to students'],
    ],
    ['review', told('review', { review: 'later' }, { review: null }), ['later', 'not set']],
    [
      'a copy',
      told('copy', { copies: 1, section: null }, { copies: 2, section: 'Week 1' }),
      ['once', 'a second copy in Week 1'],
    ],
    [
      'what was not planned',
      told('extra', { there: false, section: null }, { there: true, section: null }),
      ['nothing like it', 'in no section'],
    ],
    [
      'what is not there',
      told('not-there', { there: true, title: 'The exam' }, { there: false, title: 'The exam' }),
      ['The exam', 'not in the outline of the course'],
    ],
    ['an attachment', told('attachment', { to: ['Log'] }, { to: [] }), ['attached to “Log”', 'not attached']],
    [
      'a lock',
      told('locked', { locked: false }, { locked: true }),
      ['can be edited', 'locked, nobody can edit it'],
    ],
  ];
  for (const [what, said, words] of cases)
    it(`speak of ${what}`, () => {
      expect(said).to.deep.equal(words);
    });
});

describe('the order of many items', () => {
  it('is told where it first differs, also far down a long list', async () => {
    const twelve = TIDAL_EXAM.slice(0, 12).map((i, at) => ({ ...i, title: `Item ${at + 1}` }));
    const swapped = [...twelve.slice(0, 10), twelve[11]!, twelve[10]!];
    const [a, b] = await Promise.all(
      [twelve, swapped].map((items) => read(bankXml('b', items, PLAIN, 'Bank'))),
    );
    const { containers } = comparisonInWords(compareHoldings(a!, b!));
    expect(containers[0]!.differences).to.deep.equal([
      { facet: 'membership', from: 'order: Item 11, Item 12', to: 'order: Item 12, Item 11', example: null },
    ]);
  });
});
