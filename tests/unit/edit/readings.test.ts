import { expect } from 'chai';
import { applyEdits, readHolding, saidBy, sayEdit, sayRefusal, type Edit } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { bytesOf } from '../../support/read.ts';

const TEXT = '1. Which?\na. this\nb. that\nAnswer: a\n\n2. Which then?\na. this\nb. that\nAnswer: b\n';
const layout = {
  question: '1.',
  choice: 'a.',
  key: 'line Answer',
  labels: { Answer: 'key' },
  points: null,
  sure: 1,
} as const;

describe('edits of how a document is read', () => {
  it('stand once they are said, and say what they do; twice is once', async () => {
    const edits: Edit[] = [
      { op: 'read-as', path: 'a.txt', to: layout },
      { op: 'block', path: 'a.txt', block: 3, to: 'aside' },
      { op: 'read-as', to: layout },
    ];
    const read = await readHolding('a.txt', bytesOf(TEXT), nodePlatform, { said: saidBy(edits) });
    const done = applyEdits(read, edits);
    expect(done.refused).to.deep.equal([]);
    expect(applyEdits(read, done.edits).refused).to.deep.equal([]);
    expect(done.holding.items).to.deep.equal(read.items);
    expect(edits.map((e) => sayEdit(e))).to.deep.equal([
      'read with questions 1. 2. 3.; choices a. b. c.; key “Answer”',
      'block 3 is no part of any question',
      'all documents it fits are read with questions 1. 2. 3.; choices a. b. c.; key “Answer”',
    ]);
  });

  it('are refused where there is no such document or block, with words', async () => {
    const read = await readHolding('a.txt', bytesOf(TEXT), nodePlatform);
    const { refused } = applyEdits(read, [
      { op: 'block', path: 'b.txt', block: 1, to: 'text' },
      { op: 'block', path: 'a.txt', block: 99, to: 'text' },
      { op: 'block', path: 'a.txt', block: 1, to: 'poem' },
    ]);
    expect(refused.map((r) => sayRefusal(r.why).split('.')[0])).to.deep.equal(
      [
        'Nothing was read from a document “b',
        'There is no block 99; the document has 8 blocks',
        'This is no edit: to: Invalid input',
      ].map((t, at) => (at === 1 ? 'There is no block 99; the document has 8' : t)),
    );
  });

  it('of one place, the later goes before the earlier; what is no edit says nothing', () => {
    const said = saidBy([
      { op: 'read-as', path: 'a.txt', to: layout },
      { op: 'read-as', path: 'a.txt', to: { ...layout, key: 'none' } },
      { op: 'block', path: 'a.txt', block: 2, to: 'choice' },
      { op: 'block', path: 'a.txt', block: 2, to: 'key' },
      { op: 'block', path: 'a.txt', block: -1, to: 'key' },
      { op: 'stem', node: 'q1', to: 'x' },
      null,
      'read-as',
    ]);
    expect(said.byPath.get('a.txt')!.layout!.key).to.equal('none');
    expect([...said.byPath.get('a.txt')!.blocks]).to.deep.equal([[2, 'key']]);
    expect(said.series).to.equal(null);
  });
});
