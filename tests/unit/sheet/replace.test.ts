import { expect } from 'chai';
import fc from 'fast-check';
import {
  applyEdits,
  differingCells,
  foundIn,
  itemsAlone,
  patternOf,
  sheetCells,
  sheetTable,
  type Item,
} from '@alforja/core';
import { read } from '../../support/read.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';

const search = (find: string, replace: string, over: object = {}) => ({
  find,
  replace,
  matchCase: false,
  wholeWords: false,
  ...over,
});

describe('find and replace over items', () => {
  let items: readonly Item[] = [];
  before(async () => {
    items = (await read(bankXml('lights', LIGHTS_BANK, PLAIN, 'Lights'))).items;
  });
  const all = (s: ReturnType<typeof search>) => items.flatMap((i) => foundIn(i, s));

  it('finds every text, and shows what would stand there', () => {
    const places = all(search('light', 'lamp'));
    expect(places.length).to.be.greaterThan(3);
    for (const p of places) {
      expect(p.before.toLowerCase()).to.contain('light');
      expect(p.after.toLowerCase()).not.to.contain('light');
    }
    const { holding, refused } = applyEdits(
      itemsAlone(items),
      places.map((p) => p.edit),
    );
    expect(refused).to.deep.equal([]);
    expect(holding.items.flatMap((i) => foundIn(i, search('light', 'x')))).to.deep.equal([]);
  });

  it('minds capitals and whole words where that is asked', () => {
    expect(all(search('LIGHT', 'x', { matchCase: true }))).to.deep.equal([]);
    const whole = all(search('light', 'x', { wholeWords: true }));
    expect(whole.every((p) => /\blight\b/iu.test(p.before))).to.equal(true);
    expect(whole.length).to.be.lessThan(all(search('light', 'x')).length);
  });

  it('takes what is typed for letters and no pattern, and dollars for dollars', () => {
    const text = fc.string({ minLength: 1, maxLength: 20, unit: 'grapheme' }).filter((t) => t.trim() !== '');
    fc.assert(
      fc.property(text, (t) => {
        const found = `a ${t.normalize('NFC')} b`.match(patternOf(search(t, '')));
        expect(found, JSON.stringify(t)).not.to.equal(null);
      }),
    );
    const [first] = all(search('light', '$& $1 \\d'));
    expect(first!.after).to.contain('$& $1 \\d');
  });

  it('finds nothing for nothing', () => expect(all(search('   ', 'x'))).to.deep.equal([]));
});

describe('the sheet as a table', () => {
  let items: readonly Item[] = [];
  before(async () => {
    items = (await read(bankXml('lights', LIGHTS_BANK, PLAIN, 'Lights'))).items;
  });
  const rows = () => items.map((i) => ({ id: i.id, cells: sheetCells(i) }));

  it('that comes back as it went says nothing otherwise', () => {
    expect(differingCells(sheetTable(rows()), rows())).to.deep.equal({ cells: [], troubles: [] });
  });

  it('names just the cells that differ, with columns in any order and some gone', () => {
    const table = sheetTable(rows());
    const at = (label: string): number => table[0]!.indexOf(label);
    const [id, points, key] = [at('Item'), at('Points'), at('Key')];
    const cut = table.map((line) => [line[key]!, line[id]!, line[points]!]);
    cut[2]![2] = '9';
    expect(differingCells(cut, rows()).cells).to.deep.equal([
      { node: items[1]!.id, column: 'points', before: String(items[1]!.points), text: '9' },
    ]);
  });

  it('says which lines it could not take, and takes the others', () => {
    const table = sheetTable(rows());
    table.splice(1, 0, ['nobody', ...table[1]!.slice(1)], []);
    table.push([...table[3]!]);
    table[3]![1] = 'Another title';
    const { cells, troubles } = differingCells(table, rows());
    expect(cells.map((c) => c.text)).to.deep.equal(['Another title']);
    expect(troubles).to.deep.equal([
      { row: 2, kind: 'unknown-item', said: 'nobody' },
      { row: table.length, kind: 'item-twice', said: items[0]!.id },
    ]);
    expect(differingCells([['Title'], ['x']], rows()).troubles[0]!.kind).to.equal('no-id-column');
    expect(
      differingCells(
        [
          ['Item', 'Colour'],
          ['x', 'y'],
        ],
        rows(),
      ).troubles[0]!.kind,
    ).to.equal('no-columns');
    expect(differingCells([], rows()).troubles[0]!.kind).to.equal('no-id-column');
  });
});
