import { expect } from 'chai';
import fc from 'fast-check';
import {
  letterOf,
  COLUMN_NAMES,
  isRefused,
  readHolding,
  recognise,
  sayRefusal,
  sheetCells,
  SHEET_COLUMNS,
  typeCell,
  type Item,
  type SheetColumn,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';

async function demoItems(): Promise<Item[]> {
  const out: Item[] = [];
  for (const { name, bytes } of demoFiles())
    out.push(...(await readHolding(name, bytes, nodePlatform)).items);
  return out;
}

describe('the cells of the sheet', () => {
  let items: Item[] = [];
  before(async () => (items = await demoItems()));
  const typed = (item: Item, column: SheetColumn, text: string): Item => {
    const done = typeCell(item, column, text);
    if (isRefused(done)) throw new Error(sayRefusal(done));
    return done.item;
  };
  const why = (item: Item, column: SheetColumn, text: string): string => {
    const done = typeCell(item, column, text);
    return isRefused(done) ? sayRefusal(done) : '';
  };
  const ofKind = (kind: string, also: (i: Item) => boolean = () => true): Item =>
    items.find((i) => sheetCells(i).kind === kind && recognise(i).shape.kind !== 'program' && also(i))!;

  it('change nothing where one types what stands there', () => {
    for (const item of items)
      for (const column of COLUMN_NAMES) {
        const done = typeCell(item, column, ` ${sheetCells(item)[column]} `);
        expect(isRefused(done) ? done : done.edits, `${item.id} ${column}`).to.deep.equal([]);
      }
  });

  it('say afterwards what was typed, whatever the script', () => {
    const texts = fc
      .stringMatching(/^[a-zA-Zñéאب灯界 ]{1,30}$/u)
      .map((t) => t.replace(/\s+/gu, ' ').trim())
      .filter((t) => t !== '');
    const one = ofKind('choice');
    fc.assert(
      fc.property(
        texts,
        fc.constantFrom<SheetColumn>('title', 'category', 'feedback', 'text'),
        (text, column) => {
          expect(sheetCells(typed(one, column, text))[column]).to.equal(text);
        },
      ),
      { numRuns: 60 },
    );
  });

  it('take points as people write them', () => {
    const one = ofKind('choice');
    expect(typed(one, 'points', '2,5').points).to.equal(2.5);
    expect(why(one, 'points', 'two')).to.equal('“two” is no number.');
    expect(why(one, 'points', '-1')).to.equal('Points cannot be below 0.');
  });

  it('take a key by letters, by ids and by what choices say', () => {
    const one = ofKind('choice');
    const letters = sheetCells(one)
      .choices.split(' | ')
      .map((c) => c[0]!);
    for (const letter of letters)
      expect(sheetCells(typed(one, 'key', letter.toLowerCase())).key).to.equal(letter);
    const said = sheetCells(one).choices.split(' | ')[1]!.slice(2);
    expect(sheetCells(typed(one, 'key', said)).key).to.equal('B');
    expect(why(one, 'key', 'Q')).to.match(/^“Q” names no choice; there are A, B/u);
    expect(why(one, 'key', 'A, B')).to.equal('2 answers are named, and only one can be given.');
    const several = ofKind('choices');
    expect(sheetCells(typed(several, 'key', 'c a')).key).to.equal('A, C');
  });

  it('take numbers, and tolerances in the ways they are written', () => {
    const number = ofKind('number', (i) => recognise(i).shape.kind === 'numeric');
    const at = typed(number, 'key', '40');
    expect(sheetCells(at).key).to.equal('40');
    const span = (text: string): string => sheetCells(typed(at, 'tolerance', text)).tolerance;
    expect(span('± 0.5')).to.equal('39.5 to 40.5');
    expect(span('+-0,5')).to.equal('39.5 to 40.5');
    expect(span('5 %')).to.equal('38 to 42');
    expect(span('39 to 42')).to.equal('39 to 42');
    expect(span('39..42')).to.equal('39 to 42');
    expect(span('')).to.equal('');
    expect(why(at, 'tolerance', 'about five')).to.contain('is no tolerance');
    expect(why(at, 'tolerance', '1 to 2')).to.contain('lies outside');
    expect(why(ofKind('choice'), 'tolerance', '± 1')).to.contain('change it in the item itself');
  });

  it('take shuffling and choices that stay', () => {
    const one = ofKind('choice', (i) => sheetCells(i).shuffle === 'no');
    const now = typed(one, 'shuffle', 'yes');
    expect(sheetCells(now).shuffle).to.equal('yes');
    expect(sheetCells(typed(now, 'fixed', 'B')).fixed).to.equal('B');
    expect(why(now, 'shuffle', 'perhaps')).to.equal('“perhaps” is neither yes nor no.');
  });

  it('that follow from the item cannot be typed over', () => {
    for (const { name, open } of SHEET_COLUMNS)
      if (!open) expect(why(ofKind('choice'), name, 'x'), name).to.contain('change it in the item itself');
  });

  it('have letters beyond Z', () => {
    expect([0, 25, 26, 51, 52, 701, 702].map(letterOf)).to.deep.equal([
      'A',
      'Z',
      'AA',
      'AZ',
      'BA',
      'ZZ',
      'AAA',
    ]);
  });
});
