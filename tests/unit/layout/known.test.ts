import { expect } from 'chai';
import {
  explainDocuments,
  keyTexts,
  layoutChoices,
  looksOfDocument,
  readHolding,
  recognise,
  saidBy,
  sayKeyPlace,
  sayLayout,
  sayShape,
  type Holding,
  type KnownLayout,
  type Layout,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { bytesOf, zip } from '../../support/read.ts';

/** Layouts that were confirmed: for a document, for all of a source, for all that look alike. */

const chapter = (n: number, right: readonly string[]): string =>
  [1, 2, 3]
    .map(
      (q) =>
        `${q}. Question ${q} of chapter ${n}?\na. alpha\nb. beta\nc. gamma\nAnswer: ${right[q - 1]!}\nSkill: ${'xyz'[q - 1]!}\n`,
    )
    .join('\n');
const odd = `Q1) Which one?\n(i) alpha\n(ii) beta *\n\nQ2) And which one now?\n(i) alpha *\n(ii) beta\n`;

const seen = async (name: string, text: string, known: readonly KnownLayout[] = []) =>
  (await explainDocuments(name, bytesOf(text), nodePlatform, { known }))[0]!;
const keys = (holding: Holding): string[] => holding.items.map((i) => keyTexts(i, recognise(i)).join());
const otherwise = (layout: Layout): Layout => ({
  ...layout,
  labels: { ...layout.labels, Skill: 'category' },
});

describe('layouts that are remembered', () => {
  it('hold for documents that look alike, whatever these say, and for no other', async () => {
    const first = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const known = [
      {
        name: 'Chapters',
        looks: looksOfDocument(first.recognised),
        layout: otherwise(first.recognised.layout),
      },
    ];
    const second = await seen('two.txt', chapter(2, ['c', 'c', 'a']), known);
    expect([second.recognised.by, second.built.banks[0]!.items.map((i) => i.category)]).to.deep.equal([
      'known',
      ['x', 'y', 'z'],
    ]);
    const other = await seen('other.txt', odd, known);
    expect([other.recognised.by, other.recognised.misfit]).to.deep.equal(['found', null]);
    // What it looks like does not depend on what is known.
    expect(looksOfDocument(second.recognised)).to.deep.equal(looksOfDocument(first.recognised));
  });

  it('hold though a document lacks a line that others have', async () => {
    const first = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const known = [
      {
        name: 'Chapters',
        looks: looksOfDocument(first.recognised),
        layout: otherwise(first.recognised.layout),
      },
    ];
    const bare = chapter(3, ['b', 'b', 'b']).replace(/Skill: .\n/gu, '');
    expect((await seen('three.txt', bare, known)).recognised.by).to.equal('known');
  });

  it('set for all documents of a source, one that does not fit is pointed out and read as found', async () => {
    const { recognised } = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const files = {
      'ch1.txt': chapter(1, ['a', 'b', 'c']),
      'ch2.txt': chapter(2, ['b', 'c', 'a']),
      'odd.txt': odd,
    };
    const said = saidBy([{ op: 'read-as', to: otherwise(recognised.layout) }]);
    const holding = await readHolding('book.zip', zip(files), nodePlatform, { said });
    expect(holding.documents!.map((d) => [d.path, d.by])).to.deep.equal([
      ['ch1.txt', 'said'],
      ['ch2.txt', 'said'],
      ['odd.txt', 'found'],
    ]);
    expect(holding.findings.filter((f) => f.code === 'layout-misfit').map((f) => f.where.path)).to.deep.equal(
      ['odd.txt'],
    );
    expect(keys(holding)).to.deep.equal([
      'alpha',
      'beta',
      'gamma',
      'beta',
      'gamma',
      'alpha',
      'beta',
      'alpha',
    ]);
  });

  it('said of a document they are not meant for tables, nor the other way round', async () => {
    const { recognised } = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const rows = 'Question,A,B,Answer\nWhich?,up,down,A\nWhat?,left,right,B\nWhere?,here,there,A\n';
    const [table] = await explainDocuments('t.csv', bytesOf(rows), nodePlatform);
    const files = { 'ch1.txt': chapter(1, ['a', 'b', 'c']), 't.csv': rows };
    for (const to of [recognised.layout, table!.recognised.layout]) {
      const said = saidBy([{ op: 'read-as', to }]);
      const holding = await readHolding('book.zip', zip(files), nodePlatform, { said });
      expect(holding.findings.map((f) => f.code)).not.to.include('layout-misfit');
      expect(keys(holding)).to.deep.equal(['alpha', 'beta', 'gamma', 'up', 'right', 'here']);
    }
  });

  it('set for one document, hold whether it fits or not', async () => {
    const { recognised } = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const to = { ...recognised.layout, key: 'none' };
    const said = saidBy([{ op: 'read-as', path: 'one.txt', to }]);
    const holding = await readHolding('one.txt', bytesOf(chapter(1, ['a', 'b', 'c'])), nodePlatform, {
      said,
    });
    expect(keys(holding)).to.deep.equal(['', '', '']);
    const again = saidBy([
      { op: 'read-as', path: 'one.txt', to },
      { op: 'read-as', path: 'one.txt', to: null },
    ]);
    const back = await readHolding('one.txt', bytesOf(chapter(1, ['a', 'b', 'c'])), nodePlatform, {
      said: again,
    });
    expect(keys(back)).to.deep.equal(['alpha', 'beta', 'gamma']);
  });

  it('of tables go by the header', async () => {
    const table = (rows: string): string => `Kennung,Aufgabentext,eins,zwei,gut\n${rows}`;
    const rows =
      '1,Which way is north?,up,down,a\n2,Which way is south?,up,down,b\n3,Which is left?,west,east,a\n';
    const first = await seen('a.csv', table(rows));
    expect(first.recognised.columns!.map((c) => c.name)).to.deep.equal([
      'Kennung',
      'Aufgabentext',
      'eins',
      'zwei',
      'gut',
    ]);
    const known = [
      {
        name: 'Table',
        looks: looksOfDocument(first.recognised),
        layout: { ...first.recognised.layout, labels: { Kennung: 'category' as const } },
      },
    ];
    const second = await seen('b.csv', table(rows.replaceAll('Which', 'What')), known);
    expect([second.recognised.by, second.built.banks[0]!.items.map((i) => i.category)]).to.deep.equal([
      'known',
      ['1', '2', '3'],
    ]);
  });

  it('offer what occurs in the document, and say it as people see it', async () => {
    const { recognised } = await seen('one.txt', chapter(1, ['a', 'b', 'c']));
    const { question, choice, key, labels, columns } = layoutChoices(recognised);
    expect([question, choice].map((l) => l.at(-1))).to.deep.equal(['none', 'none']);
    expect(question[0]).to.equal('1.');
    expect(choice).to.include.members(['a.', 'plain']);
    expect(key).to.include.members(['line Answer', 'none']);
    expect(labels).to.deep.include({ name: 'Skill', role: 'noted', count: 3, values: ['x', 'y', 'z'] });
    expect(columns).to.equal(null);
    expect([sayShape('1.'), sayShape('(a)'), sayShape('•'), sayShape('a. | A)')]).to.deep.equal([
      '1. 2. 3.',
      '(a) (b) (c)',
      '•',
      'a. b. c. or A) B) C)',
    ]);
    expect(['mark bold', 'line Answer', 'list', 'none', 'mark word correct'].map(sayKeyPlace)).to.deep.equal([
      'bold',
      '“Answer”',
      'a list of answers',
      'nowhere',
      '“correct” behind the choice',
    ]);
    expect(sayLayout(recognised.layout)).to.equal('questions 1. 2. 3.; choices a. b. c.; key “Answer”');
  });
});
