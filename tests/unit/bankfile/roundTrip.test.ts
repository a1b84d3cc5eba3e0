import { expect } from 'chai';
import fc from 'fast-check';
import {
  BANK_TARGETS,
  compareHoldings,
  make,
  readHolding,
  type BankTarget,
  type Holding,
} from '@alforja/core';
import { writeBankFile } from '@alforja/core/bankfile';
import { nodePlatform } from '@alforja/core/node';
import { plainBank } from '../../support/bankArbitraries.ts';
import { question } from '../../support/making.ts';

const ENDINGS: Readonly<Record<BankTarget, string>> = { docx: 'docx', text: 'txt', csv: 'csv', xlsx: 'xlsx' };
const written = (holding: Holding, target: BankTarget) =>
  writeBankFile(holding, target, () => null, nodePlatform);

describe('a bank as a document or a table', () => {
  for (const target of BANK_TARGETS)
    it(`is read back whole from ${target}`, async () => {
      await fc.assert(
        fc.asyncProperty(plainBank, async (holding) => {
          const { bytes, findings } = await written(holding, target);
          expect(findings).to.deep.equal([]);
          const back = await readHolding(`bank.${ENDINGS[target]}`, bytes, nodePlatform);
          const { counts, pairs } = compareHoldings(holding, back);
          const facets = pairs
            .flatMap((p) => p.differences.map((d) => d.facet))
            .filter((f) => f !== 'title' && f !== 'shuffle');
          expect(facets).to.deep.equal([]);
          expect(counts.missing + counts.extra).to.equal(0);
          expect(back.banks.map((b) => b.title)).to.deep.equal([
            target === 'csv' ? 'bank' : 'Coastal pilotage',
          ]);
        }),
        { numRuns: target === 'text' ? 60 : 12 },
      );
    });

  it('keeps several banks apart, and their questions in order', async () => {
    const items = ['tide', 'ebb', 'flood', 'slack'].map((id) => question(id));
    const bank = (id: string, title: string, ids: string[]) => ({
      id,
      title,
      items: ids,
      metadata: [],
      origin: null,
    });
    const holding = make.holding({
      title: 'Two chapters',
      items,
      banks: [bank('a', 'Lights', ['tide', 'ebb']), bank('b', 'Tides', ['flood', 'slack'])],
    });
    for (const target of BANK_TARGETS) {
      const { bytes, findings } = await written(holding, target);
      expect(findings, target).to.deep.equal([]);
      const back = await readHolding(`bank.${ENDINGS[target]}`, bytes, nodePlatform);
      expect(
        back.banks.map((b) => b.items.length),
        target,
      ).to.deep.equal([2, 2]);
      expect(back.banks[1]!.title, target).to.contain('Tides');
    }
  });

  it('names what it cannot say: other kinds, draws, settings, a text that would be taken for a label', async () => {
    const slider = make.item({
      id: 'slide',
      body: [
        {
          kind: 'slider',
          responseId: 'R',
          prompt: [],
          lowerBound: 0,
          upperBound: 9,
          step: 1,
          reverse: false,
          vertical: false,
        },
      ],
    });
    const asked = question('odd');
    const line = (text: string) => make.element('p', [make.text(text)]);
    const odd = { ...asked, body: [line('What now?'), line('Answer: a'), ...asked.body.slice(1)] };
    const quiz = {
      id: 'quiz',
      title: 'Quiz',
      settings: { ...make.NO_SETTINGS, attempts: 2 },
      sections: [
        {
          id: 's',
          title: 'Any',
          shuffle: false,
          items: [],
          instructions: null,
          draw: { pick: 1, bank: null, pool: ['odd'], weights: null, pointsEach: 1, withReplacement: false },
        },
      ],
      test: null,
      metadata: [],
      origin: null,
    };
    const holding = make.holding({
      title: 'Bank',
      items: [slider, odd, question('even'), question('prime')],
      quizzes: [quiz],
    });
    const { findings } = await written(holding, 'text');
    const said = findings.map((f) => `${f.code} ${f.where.node}`);
    expect(said)
      .to.include('loss-kind slide')
      .and.to.include('loss-draw quiz')
      .and.to.include('loss-settings quiz');
    expect(
      findings.some((f) => f.where.node === 'odd'),
      said.join(),
    ).to.equal(true);
    expect(findings.some((f) => f.where.node === 'even')).to.equal(false);
  });

  it('makes text of what a spreadsheet would take for a formula, and reads it back as it was', async () => {
    const holding = make.holding({
      title: 'Bank',
      items: ['a', 'b', 'c'].map((id) => question(id, { choices: ['=1+1', '+2', 'three'] })),
    });
    const { bytes, findings } = await written(holding, 'csv');
    expect(findings).to.deep.equal([]);
    expect(new TextDecoder().decode(bytes)).to.contain("'=1+1 of a").and.not.to.match(/,=1/u);
  });
});
