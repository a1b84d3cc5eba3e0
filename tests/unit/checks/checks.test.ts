import { expect } from 'chai';
import { CHECKS } from '@alforja/core';
import { assessmentXml, bankXml, document as qti, itemXml, PLAIN } from '../../../demo/qti12.ts';
import type { ItemSpec } from '../../../demo/items.ts';
import { codes, read, readZip } from '../../support/read.ts';

const base = {
  kind: 'single',
  id: 'i',
  points: 1,
  stem: '<p>Which side is port?</p>',
  choices: [{ text: 'Left', right: true }, { text: 'Right' }],
} satisfies ItemSpec;
const shuffled = (...texts: string[]) => ({
  ...base,
  shuffle: true,
  choices: texts.map((text, at) => ({ text, right: at === 0, pinned: text.endsWith('!') })),
});
const raw = (spec: ItemSpec, edit: (xml: string) => string = (x) => x): string =>
  qti(edit(itemXml(spec, PLAIN)));
const drawing = (pick: number, ...points: number[]): Record<string, string> => ({
  'quiz.xml': assessmentXml(
    { id: 'q', title: 'Q', items: [], draws: [{ title: 'D', bank: 'b', pick, pointsEach: 1 }] },
    PLAIN,
  ),
  'bank.xml': bankXml(
    'b',
    points.map((p, at) => ({
      ...base,
      id: `b${at}`,
      points: p,
      stem: `<p>Question number ${at} on port</p>`,
    })),
    PLAIN,
    'B',
  ),
});

/** For each check: what trips it, and what looks alike and does not. */
const SAMPLES: Record<string, { trips: (string | Record<string, string>)[]; passes: (string | Record<string, string>)[] }> = {
  'key-missing': {
    trips: [raw({ ...base, choices: [{ text: 'Left' }, { text: 'Right' }] })],
    passes: [raw(base), raw({ kind: 'essay', id: 'e', points: 3, stem: '<p>Explain.</p>' })],
  },
  'key-unknown-choice': {
    trips: [raw(base, (x) => x.replace('>A</varequal>', '>Z</varequal>'))],
    passes: [raw(base)],
  },
  'key-several-on-single': {
    trips: [raw(base, (x) => x.replace(/(<varequal respident="response1">)A(<\/varequal>)/u, '<or>$1A$2$1B$2</or>'))],
    passes: [raw(base), raw({ ...base, kind: 'multiple', choices: base.choices.map((c) => ({ ...c, right: true })) })],
  },
  'points-not-positive': { trips: [raw({ ...base, points: 0 })], passes: [raw({ ...base, points: 0.5 })] },
  'stem-empty': {
    trips: [raw({ ...base, stem: '' }), raw({ ...base, stem: '<p> </p>' })],
    passes: [raw({ ...base, stem: '<p><img src="a.png" alt="A chart"></p>' }), raw({ ...base, stem: '<p>右</p>' })],
  },
  'duplicate-choices': {
    trips: [raw({ ...base, choices: [...base.choices, { text: ' left' }] })],
    passes: [raw({ ...base, choices: [{ text: 'H<sub>2</sub>', right: true }, { text: 'H2' }] })],
  },
  'all-of-the-above-shuffled': {
    trips: [shuffled('A', 'All of the above'), shuffled('A', 'Both A and B'), shuffled('A', 'none of these.'), shuffled('A', 'Answers B and C')].map((s) => raw(s)),
    passes: [raw(shuffled('A', 'All of the above!')), raw({ ...shuffled('A', 'All of the above'), shuffle: false }), raw(shuffled('A bearing of all buoys', 'Vitamin C and D are nice')), raw(shuffled('Left of the mark', 'Above all, slow down'))],
  },
  'draw-too-large': { trips: [drawing(3, 1, 1)], passes: [drawing(2, 1, 1)] },
  'draw-points-unequal': { trips: [drawing(1, 1, 2)], passes: [drawing(1, 2, 2)] },
}; // prettier-ignore

describe('the checks', () => {
  it('has a sample for each of the catalogue', () => {
    expect(Object.keys(SAMPLES).sort()).to.deep.equal(CHECKS.map((c) => c.code).sort());
  });
  const found = async (sample: string | Record<string, string>): Promise<string[]> =>
    codes(await (typeof sample === 'string' ? read(sample) : readZip(sample)));
  for (const [code, { trips, passes }] of Object.entries(SAMPLES)) {
    it(`${code}: trips on what is wrong, and only then`, async () => {
      for (const sample of trips) expect(await found(sample), JSON.stringify(sample)).to.include(code);
      for (const sample of passes) expect(await found(sample), JSON.stringify(sample)).to.not.include(code);
    });
  }
});
