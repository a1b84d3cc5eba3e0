import { expect } from 'chai';
import type { SheetLine } from '../../../src/lib/shared/sheet.ts';
import { isoOf, localOf } from '../../../src/lib/ui/room/moments.ts';
import { pressGridKey, type KeyedGrid } from '../../../src/lib/ui/sheet/gridKeys.ts';
import { NO_CATEGORY, NO_SIEVE, sieved, valuesOf } from '../../../src/lib/ui/sheet/sieve.ts';

const line = (seq: number, over: Partial<SheetLine['cells']> = {}, findings = 0): SheetLine => ({
  id: `i${seq}`,
  seq,
  findings,
  cells: {
    title: '',
    text: `Question ${seq}`,
    kind: 'choice',
    category: 'Tides',
    points: '2',
    choices: '',
    key: 'A',
    tolerance: '',
    shuffle: 'yes',
    fixed: '',
    feedback: '',
    ...over,
  },
});
const lines = [
  line(0),
  line(1, { kind: 'number', category: '', points: '10' }, 2),
  line(2, { text: 'Señal ñ', points: '2' }),
];
const ids = (of: readonly SheetLine[]): string[] => of.map((l) => l.id);

describe('the rows a sheet shows', () => {
  it('are all of them, in their order, where nothing is asked', () =>
    expect(sieved(lines, NO_SIEVE)).to.equal(lines));
  it('are those that fit everything that is asked', () => {
    expect(ids(sieved(lines, { ...NO_SIEVE, kind: 'choice', points: '2' }))).to.deep.equal(['i0', 'i2']);
    expect(ids(sieved(lines, { ...NO_SIEVE, category: NO_CATEGORY }))).to.deep.equal(['i1']);
    expect(ids(sieved(lines, { ...NO_SIEVE, findings: 'none' }))).to.deep.equal(['i0', 'i2']);
    expect(ids(sieved(lines, { ...NO_SIEVE, findings: 'some' }))).to.deep.equal(['i1']);
    expect(ids(sieved(lines, { ...NO_SIEVE, q: 'SEÑAL' }))).to.deep.equal(['i2']);
    expect(ids(sieved(lines, { ...NO_SIEVE, places: new Set([2]) }))).to.deep.equal(['i2']);
  });
  it('say what can be asked for, numbers by their size', () =>
    expect(valuesOf(lines, 'points')).to.deep.equal([
      { value: '2', count: 2 },
      { value: '10', count: 1 },
    ]));
});

describe('the keys of the sheet of items', () => {
  /** What a key did, in words. */
  function pressed(key: string, over: object = {}): string[] {
    const said: string[] = [];
    const grid: KeyedGrid = {
      cursor: { row: 5, col: 3 },
      shown: Array.from({ length: 100 }),
      columns: 11,
      go: (row, col, extend = false) => void said.push(`go ${row} ${col}${extend ? ' marking' : ''}`),
      markAll: () => void said.push('all'),
      fillDown: () => void said.push('fill'),
      clear: () => void said.push('clear'),
      leaveOut: () => void said.push('out'),
      undo: async (what) => void said.push(what),
    };
    const event = { key, shiftKey: false, altKey: false, ctrlKey: false, metaKey: false, ...over };
    if (!pressGridKey(grid, event, (typed) => void said.push(`edit ${typed}`))) said.push('nothing');
    return said;
  }
  const ctrl = { ctrlKey: true };
  const CASES: readonly [string, object, string][] = [
    ['ArrowDown', {}, 'go 6 3'],
    ['ArrowLeft', { shiftKey: true }, 'go 5 2 marking'],
    ['ArrowDown', { ctrlKey: true, shiftKey: true }, 'go 99 3 marking'],
    ['ArrowRight', ctrl, 'go 5 10'],
    ['PageDown', {}, 'go 20 3'],
    ['Home', {}, 'go 5 0'],
    ['End', ctrl, 'go 99 10'],
    ['a', ctrl, 'all'],
    ['d', ctrl, 'fill'],
    ['Delete', {}, 'clear'],
    ['Delete', ctrl, 'out'],
    ['z', ctrl, 'undo'],
    ['z', { ctrlKey: true, shiftKey: true }, 'redo'],
    ['y', { metaKey: true }, 'redo'],
    ['Enter', {}, 'edit null'],
    ['F2', {}, 'edit null'],
    ['x', {}, 'edit x'],
    ['灯', {}, 'edit 灯'],
    ['Escape', {}, 'nothing'],
    ['c', ctrl, 'nothing'],
    ['x', { altKey: true }, 'nothing'],
  ];
  for (const [key, over, said] of CASES)
    it(`${JSON.stringify(over)} ${key}: ${said}`, () => expect(pressed(key, over)).to.deep.equal([said]));
});

describe('moments in a field', () => {
  it('come back as they were set, in whatever zone one reads them', () => {
    for (const iso of ['2026-11-30T09:00:00Z', '2026-03-29T01:30:00Z', '2027-01-01T00:00:00Z'])
      expect(isoOf(localOf(iso))).to.equal(iso);
    expect(Date.parse(isoOf(localOf('2026-11-30T09:00:00+01:00'))!)).to.equal(
      Date.parse('2026-11-30T08:00:00Z'),
    );
  });
  it('are none where nothing is set, or nothing that is a moment', () => {
    expect([localOf(null), localOf('soon'), isoOf(''), isoOf('soon')]).to.deep.equal(['', '', null, null]);
  });
});
