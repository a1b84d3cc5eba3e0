import { expect } from 'chai';
import type { Layout } from '@alforja/core';
import type { BlockView, ReadItem } from '$lib/shared/documents';
import type { PackageListing } from '$lib/shared/types';
import {
  layoutOfColumns,
  withKey,
  withLabel,
  withPart,
  withPoints,
} from '../../../src/lib/ui/document/layoutParts.ts';
import { documentRows } from '../../../src/lib/ui/document/rows.ts';
import { commonName, isChapter } from '../../../src/lib/ui/together.ts';

const layout: Layout = {
  question: '1.',
  choice: 'a.',
  key: 'line Answer',
  labels: { Answer: 'key', Solution: 'noted', Level: 'difficulty' },
  points: 'points',
  sure: 0.6,
};

describe('a layout with one part of it said otherwise', () => {
  it('has one place of keys, whichever way it is said', () => {
    expect(withKey(layout, 'line Solution').labels).to.deep.equal({
      Answer: 'noted',
      Solution: 'key',
      Level: 'difficulty',
    });
    expect(withLabel(layout, 'Solution', 'key')).to.deep.include({ key: 'line Solution' });
    expect(withKey(layout, 'mark bold').labels['Answer']).to.equal('key');
    expect(withLabel(layout, 'Answer', 'skip').key).to.equal('none');
  });

  it('is sure from then on, and otherwise as it was', () => {
    expect(withPart(layout, 'choice', '(a)')).to.deep.equal({ ...layout, choice: '(a)', sure: 1 });
    expect(withPoints(layout, null)).to.deep.equal({ ...layout, points: null, sure: 1 });
    expect(withLabel(layout, 'Level', 'category').labels['Level']).to.equal('category');
  });

  it('of a table is what its columns say', () => {
    const columns = [
      { name: 'Nr', role: 'number' },
      { name: 'Text', role: 'question' },
      { name: 'A', role: 'choice' },
      { name: 'B', role: 'choice' },
      { name: 'Right', role: 'key' },
    ] as const;
    expect(layoutOfColumns(columns)).to.deep.equal({
      question: 'Text',
      choice: 'A | B',
      key: 'line Right',
      labels: { Nr: 'number', Right: 'key' },
      points: null,
      sure: 1,
    });
    expect(layoutOfColumns(columns.slice(0, 1)).key).to.equal('none');
  });
});

describe('a document beside its questions', () => {
  const block = (
    n: number,
    as: BlockView['as'],
    item: string | null = null,
    said: BlockView['said'] = null,
  ) => ({ n, page: 1, label: '', level: 0, heading: 0, content: [], as, item, said }) satisfies BlockView;
  const item = (id: string, doubts: string[] = []): ReadItem => ({
    id,
    kind: 'choice',
    points: 1,
    category: null,
    body: [],
    responses: [],
    keyed: [],
    key: [],
    keyText: false,
    doubts,
  });

  it('has a row for what each stretch of blocks became, and one for each block that nobody understood', () => {
    const rows = documentRows({
      blocks: [
        block(1, 'heading'),
        block(2, 'item', 'q1'),
        block(3, 'item', 'q1'),
        block(4, 'unread'),
        block(5, 'unread'),
        block(6, 'item', 'q2'),
        block(7, 'passage'),
        block(8, 'item', 'q2'),
        block(9, 'item', 'q3', 'text'),
      ],
      items: [item('q1'), item('q2', ['doubt']), item('q3')],
    });
    expect(rows.map((r) => [r.key, r.blocks.length, r.standing, r.number, r.goesOn])).to.deep.equal([
      ['b1', 1, 'read', 0, false],
      ['b2', 2, 'read', 1, false],
      ['b4', 1, 'not read', 0, false],
      ['b5', 1, 'not read', 0, false],
      ['b6', 1, 'unsure', 2, false],
      ['b7', 1, 'read', 0, false],
      ['b8', 1, 'read', 2, true],
      ['b9', 1, 'by hand', 3, false],
    ]);
  });
});

describe('files that came in together', () => {
  it('are called by what their names have in common', () => {
    expect(commonName(['pilotage-ch01.docx', 'pilotage-ch02.xlsx'])).to.equal('pilotage');
    expect(commonName(['Kapitel 1.rtf', 'Kapitel 2.rtf'])).to.equal('Kapitel');
    expect(commonName(['航海術 第1章.docx', '航海術 第2章.docx'])).to.equal('航海術 第');
    expect(commonName(['a.txt', 'b.txt'])).to.equal('Chapters');
    expect(commonName([])).to.equal('Chapters');
  });

  it('are chapters where they are documents or tables of no rubrics, once they are read', () => {
    const held = (container: string, over: object = {}): PackageListing =>
      ({
        state: 'ready',
        summary: { format: { container }, rubrics: 0, ...over },
      }) as unknown as PackageListing;
    expect(['docx', 'csv', 'pdf', 'zip', 'xml'].map((c) => isChapter(held(c)))).to.deep.equal([
      true,
      true,
      true,
      false,
      false,
    ]);
    expect(isChapter(held('csv', { rubrics: 1 }))).to.equal(false);
    expect(isChapter({ ...held('docx'), state: 'reading' })).to.equal(null);
    expect(isChapter({ ...held('docx'), state: 'failed', summary: null })).to.equal(false);
  });
});
