import { expect } from 'chai';
import { applyEdits, evaluate, type Holding, type Item } from '@alforja/core';
import { askedAnswer, keyEdit, type AskedAnswer } from '../../../src/lib/ui/room/askedKey.ts';
import { ASKED } from '../../support/asked.ts';
import { read } from '../../support/read.ts';

const one = async (name: string): Promise<{ holding: Holding; item: Item }> => {
  const holding = await read(ASKED[name]!);
  return { holding, item: holding.items[0]! };
};
const ask = (item: Item, only: string | null = null): AskedAnswer => {
  const asked = askedAnswer({ item, changed: [] }, only);
  expect(asked).to.not.equal(null);
  return asked!;
};
/** The item after what was said, which has to be taken. */
function said(holding: Holding, asked: AskedAnswer, ticked: readonly string[], typed = ''): Item {
  const edit = keyEdit(asked, ticked, typed);
  expect(edit).to.not.equal(null);
  const done = applyEdits(holding, [edit!]);
  expect(done.refused).to.deep.equal([]);
  return done.holding.items[0]!;
}
const score = (item: Item, response: string, given: string | number): number =>
  evaluate(item, { [response]: [given] }).score;

describe('what is asked of an item without a key', () => {
  it('is one of its choices, by what they say', async () => {
    const { holding, item } = await one('choice.xml');
    const asked = ask(item);
    expect(asked.choices!.map((c) => c.says)).to.deep.equal(['Port', 'Starboard']);
    expect([asked.several, keyEdit(asked, [], '')]).to.deep.equal([false, null]);
    const now = said(holding, asked, ['B']);
    expect([score(now, 'RESPONSE', 'B') > 0, score(now, 'RESPONSE', 'A')]).to.deep.equal([true, 0]);
  });

  it('is texts, several apart by a bar, blanks around them left out', async () => {
    const { holding, item } = await one('word.xml');
    const asked = ask(item);
    expect([asked.choices, asked.number]).to.deep.equal([null, false]);
    for (const nothing of ['', '  ', ' | ']) expect(keyEdit(asked, [], nothing)).to.equal(null);
    const now = said(holding, asked, [], ' bow |  prow | 船首');
    for (const word of ['bow', 'PROW', '船首'])
      expect(score(now, 'RESPONSE', word), word).to.be.greaterThan(0);
    expect(score(now, 'RESPONSE', 'stern')).to.equal(0);
  });

  it('is a number, with a comma too; nothing that is none', async () => {
    const { holding, item } = await one('number.xml');
    const asked = ask(item);
    expect(asked.number).to.equal(true);
    for (const bad of ['', 'four', '1e999']) expect(keyEdit(asked, [], bad)).to.equal(null);
    const now = said(holding, asked, [], '2,5');
    expect([score(now, 'RESPONSE', 2.5) > 0, score(now, 'RESPONSE', 25)]).to.deep.equal([true, 0]);
  });

  it('is the blank that a finding names; the item keeps its points, shared by both', async () => {
    const { holding, item } = await one('blanks.xml');
    expect(ask(item).response, 'the first that is open').to.equal('R2');
    const now = said(holding, ask(item, 'R2'), [], 'stern');
    expect(now.points).to.equal(item.points);
    expect(evaluate(now, { R1: ['bow'], R2: ['stern'] }).score).to.equal(item.points);
    expect(score(now, 'R2', 'stern')).to.equal(item.points / 2);
  });

  it('is left to the editor where a line is not enough, and where nothing is open', async () => {
    const { item } = await one('choice.xml');
    const essay: Item = {
      ...item,
      body: [
        {
          kind: 'extendedText',
          responseId: 'RESPONSE',
          prompt: [],
          expectedLines: null,
          expectedLength: null,
        },
      ],
    };
    expect(askedAnswer({ item: essay, changed: [] }, null)).to.equal(null);
    expect(askedAnswer({ item, changed: [] }, 'nothing')).to.equal(null);
  });
});
