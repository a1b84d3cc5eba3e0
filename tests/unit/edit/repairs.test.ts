import { expect } from 'chai';
import {
  finding,
  make,
  mend,
  readHolding,
  repairsOf,
  REPAIRABLE,
  sayEdit,
  writeHolding,
  type FindingCode,
  type Holding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { assessmentXml, bankXml, document as qti, itemXml, PLAIN } from '../../../demo/qti12.ts';
import { codes, read, readZip } from '../../support/read.ts';
import { base, dated, drawing, raw, SAMPLES } from '../checks/samples.ts';
import { edited } from './support.ts';

type Sample = string | Readonly<Record<string, string>>;

const held = (sample: Sample): Promise<Holding> =>
  typeof sample === 'string' ? read(sample) : readZip(sample);

const impossible = (opens: string, closes: string): Holding => ({
  ...make.holding({ quizzes: [dated(opens, closes)] }),
  findings: [finding('dates-impossible', 'error', { node: 'q' }, { opens, closes })],
});

/** What trips each finding that can be repaired: as for the checks, and what only reading finds. */
const MORE: Partial<Record<FindingCode, readonly Sample[]>> = {
  'points-disagree': [
    raw(base, (x) =>
      x.replace(
        '</qtimetadata>',
        '<qtimetadatafield><fieldlabel>qmd_maximumscore</fieldlabel><fieldentry>7</fieldentry></qtimetadatafield></qtimetadata>',
      ),
    ),
  ],
  'file-missing': [raw({ ...base, stem: '<p>See <img src="gone.png" alt="x"> here: which side?</p>' })],
  'title-missing': [bankXml('b', [{ ...base, category: 'Chapter 3' }], PLAIN)],
  'draw-points-unequal': [drawing(1, 1, 2), drawing(2, 3, 1, 2, 2)],
};
const samplesFor = (code: FindingCode): readonly Sample[] => MORE[code] ?? SAMPLES[code]?.trips ?? [];

describe('repairs', () => {
  for (const code of REPAIRABLE.filter((c) => c !== 'dates-impossible')) {
    it(`${code}: found, said in words, repaired, and gone from what is written`, async () => {
      const samples = samplesFor(code);
      expect(samples.length).to.be.greaterThan(0);
      for (const sample of samples) {
        const holding = await held(sample);
        expect(codes(holding)).to.include(code);
        const repairs = repairsOf(holding).filter((r) => r.code === code);
        // A key that names a missing choice and nothing else is for a person to say.
        if (code === 'key-unknown-choice') {
          expect(repairs).to.deep.equal([]);
          continue;
        }
        expect(repairs.length).to.be.greaterThan(0);
        for (const edit of repairs.flatMap((r) => r.edits)) expect(sayEdit(edit)).to.match(/\p{L}{2}/u);
        const mended = mend(holding, new Set([code]), []);
        expect(codes(mended.holding), JSON.stringify(mended.edits)).not.to.include(code);
        const [bytes] = writeHolding(mended.holding, 'qti1.2', () => null, nodePlatform).packages;
        const back = await readHolding('back.zip', bytes!, nodePlatform);
        expect(codes(back)).not.to.include(code);
        const again = mend(back, new Set([code]), []);
        expect([again.edits, again.holding]).to.deep.equal([[], back]);
      }
    });
  }

  it('dates-impossible: dates change places, or the closing one goes', () => {
    const [early, late] = ['2026-03-01T08:00:00Z', '2026-03-02T08:00:00Z'];
    const turned = mend(impossible(late, early), 'all', []).holding;
    expect(turned.quizzes[0]!.settings).to.deep.include({ opens: early, closes: late });
    const same = mend(impossible(early, early), 'all', []).holding;
    expect(same.quizzes[0]!.settings).to.deep.include({ opens: early, closes: null });
    expect([turned, same].flatMap(codes)).to.deep.equal([]);
  });

  it('keep the right choices that are there, and know a choice by its name', async () => {
    const two = {
      ...base,
      kind: 'multiple',
      choices: base.choices.map((c) => ({ ...c, right: true })),
    } as const;
    const partly = await read(raw(two, (x) => x.replaceAll('>B</varequal>', '>Z</varequal>')));
    const [repair] = repairsOf(partly).filter((r) => r.code === 'key-unknown-choice');
    expect(repair?.edits[0]).to.deep.include({ op: 'key', to: ['A'] });
    const named = await read(raw(base, (x) => x.replaceAll('>A</varequal>', '>a.</varequal>')));
    const mended = mend(named, new Set(['key-unknown-choice']), []);
    expect(edited(mended.holding).said.key).to.deep.equal(['Left']);
    expect(codes(mended.holding)).not.to.include('key-unknown-choice');
  });

  it('pin what speaks of other choices, and keep in order what calls them by letters', async () => {
    const shuffled = (text: string): Promise<Holding> =>
      read(raw({ ...base, shuffle: true, choices: [...base.choices, { text }] }));
    const above = mend(await shuffled('All of the above'), 'all', []);
    expect(above.edits).to.deep.include({ op: 'choice-fixed', node: 'i', choice: 'C', to: true, was: false });
    const letters = mend(await shuffled('Both A and B'), 'all', []);
    expect(letters.edits.map((e) => e.op)).to.include('shuffle');
  });

  it('drop the wrong one of two equal choices', async () => {
    const right = await read(
      raw({ ...base, choices: [{ text: 'Left' }, { text: 'Right' }, { text: 'left', right: true }] }),
    );
    const mended = mend(right, new Set(['duplicate-choices']), []);
    expect(edited(mended.holding).said).to.deep.include({ key: ['left'], points: 1 });
  });

  it('leave the source, and everything nobody asked for, as it was', async () => {
    const holding = await read(
      qti(
        itemXml({ ...base, points: 0 }, PLAIN) +
          itemXml({ ...base, id: 'j', stem: '<p>Other <img src="a.png"> words?</p>' }, PLAIN),
      ),
    );
    const before = JSON.stringify(holding);
    const mended = mend(holding, new Set(['points-not-positive']), []);
    expect(JSON.stringify(holding)).to.equal(before);
    expect(mended.edits.map((e) => e.op)).to.deep.equal(['points']);
    expect(mended.holding.items[1]).to.equal(holding.items[1]);
    expect(codes(mended.holding)).to.include.members(['image-alt-missing', 'file-missing']);
  });

  it('name a bank after what it holds, a quiz after its file', async () => {
    const bank = await readHolding(
      'tides_and-streams.xml',
      new TextEncoder().encode(bankXml('b', [base], PLAIN)),
      nodePlatform,
    );
    expect(mend(bank, 'all', []).holding.banks[0]!.title).to.equal('Tides and streams');
    const quiz = await readHolding(
      'unit-4.xml',
      new TextEncoder().encode(
        assessmentXml({ id: 'q', title: '', items: [{ ...base, category: 'Unit 4' }] }, PLAIN),
      ),
      nodePlatform,
    );
    expect(mend(quiz, 'all', []).holding.quizzes[0]!.title).to.equal('Unit 4');
  });

  it('do not wear each other out: all at once, and twice changes nothing more', async () => {
    const all = Object.values(SAMPLES).flatMap((s) => s.trips);
    for (const sample of all) {
      const once = mend(await held(sample), 'all', []);
      const [bytes] = writeHolding(once.holding, 'qti2.1', () => null, nodePlatform).packages;
      const back = await readHolding('back.zip', bytes!, nodePlatform);
      expect(mend(back, 'all', []).edits, JSON.stringify(sample)).to.deep.equal([]);
    }
  });
});
