import { expect } from 'chai';
import fc from 'fast-check';
import {
  blocksSeen,
  choicesOf,
  explainDocuments,
  HAND_ROLES,
  keyTexts,
  optionText,
  readHolding,
  recognise,
  saidBy,
  stemText,
  type Edit,
  type HandRole,
  type Holding,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

/** What somebody says of single blocks, kept as edits, before a document is read. */

const NAME = 'exam.txt';
const TEXT = `Chapter 1: Tides

1. Springs come after
a. new and full moon
b. half moon
Answer: a

A remark that nobody can place.

2. Neaps come after
a. new moon
b. half moon
Answer: b

The range of 1914
3. is the greatest so far?
a. yes
b. no
Answer: a
`;
const bytes = new TextEncoder().encode(TEXT);

const block = (n: number, to: HandRole | null): Edit => ({ op: 'block', path: NAME, block: n, to });
const readWith = (...edits: Edit[]): Promise<Holding> =>
  readHolding(NAME, bytes, nodePlatform, { said: saidBy(edits) });
const shown = (holding: Holding): string[] =>
  holding.items.map(
    (i) =>
      `${i.id} ${stemText(i)} [${choicesOf(i).map(optionText).join(' | ')}] ${keyTexts(i, recognise(i)).join(' | ')}`,
  );
const unread = (holding: Holding): number[] => holding.documents![0]!.unread.map((u) => u.from);

describe('blocks of a document, said by hand', () => {
  it('a loose block is given to the question above, as its text, a choice, feedback or the key', async () => {
    const plain = await readWith();
    expect(shown(plain)[0]).to.equal(
      'q1 Springs come after [new and full moon | half moon] new and full moon',
    );
    const loose = unread(plain)[0]!;
    expect(loose).to.equal(6);
    expect(shown(await readWith(block(loose, 'text')))[0]).to.contain('A remark that nobody can place.');
    expect(choicesOf((await readWith(block(loose, 'choice'))).items[0]!)).to.have.length(3);
    const told = (await readWith(block(loose, 'feedback'))).items[0]!;
    expect(JSON.stringify(told.feedback)).to.contain('A remark that nobody can place.');
    for (const to of ['text', 'choice', 'feedback', 'aside'] as const)
      expect(unread(await readWith(block(loose, to))), to).not.to.include(loose);
  });

  it('a block that is said to be the key goes before every other place of keys', async () => {
    // The line that names the answer of the second question, said to be text of it, and its first choice the key.
    const moved = await readWith(block(5, 'aside'), block(4, 'key'));
    expect(shown(moved)[0]).to.match(/half moon$/u);
    expect(moved.findings.filter((f) => f.code === 'key-unsure' && f.where.node === 'q1')).to.deep.equal([]);
  });

  it('a question is split where one begins, and joined with the one above; no other id changes', async () => {
    const ids = (await readWith()).items.map((i) => i.id);
    const split = await readWith(block(6, 'question'));
    expect(split.items.map((i) => i.id).filter((id) => !ids.includes(id))).to.have.length(1);
    expect(split.items.map((i) => i.id).filter((id) => ids.includes(id))).to.deep.equal(ids);
    const joined = await readWith(block(7, 'text'));
    expect(joined.items.map((i) => i.id)).to.deep.equal(ids.filter((id) => id !== 'q2'));
  });

  it('text above a question goes to it, and a heading begins a bank of its own', async () => {
    const given = await readWith(block(11, 'before'));
    expect(stemText(given.items[2]!)).to.match(/^The range of 1914/u);
    const headed = await readWith(block(6, 'heading'));
    expect(headed.banks.map((b) => b.items.length)).to.deep.equal([1, 2]);
  });

  it('taken back, it is as it was', async () => {
    expect(shown(await readWith(block(6, 'text'), block(6, null)))).to.deep.equal(shown(await readWith()));
  });

  it('whatever is said, every block is accounted for once, and nothing that is read is lost without a word', async () => {
    const says = fc.array(fc.tuple(fc.integer({ min: 1, max: 14 }), fc.constantFrom(...HAND_ROLES)), {
      minLength: 1,
      maxLength: 5,
    });
    await fc.assert(
      fc.asyncProperty(says, async (list) => {
        const said = saidBy(list.map(([n, to]) => block(n, to)));
        const [seen] = await explainDocuments(NAME, bytes, nodePlatform, { said });
        const blocks = blocksSeen(seen!.recognised, seen!.built);
        expect(blocks.map((b) => b.n)).to.deep.equal(seen!.recognised.document.blocks.map((b) => b.n));
        const items = new Set(seen!.built.banks.flatMap((b) => b.items.map((i) => i.id)));
        for (const b of blocks) if (b.as === 'item') expect(items.has(b.item!)).to.equal(true);
        const loose = new Set(
          seen!.built.unread.flatMap((u) => Array.from({ length: u.to - u.from + 1 }, (_, k) => u.from + k)),
        );
        for (const b of blocks)
          if (loose.has(b.n))
            expect(['unread', 'heading', 'item', 'passage', 'answers'], `${b.n}`).to.include(b.as);
        const [last] = new Map(list).entries();
        if (last?.[1] === 'aside') expect(blocks[last[0] - 1]!.as).to.equal('aside');
      }),
      { numRuns: 120 },
    );
  });
});
