import { expect } from 'chai';
import { pressKey, type KeyedSheet } from '../../../src/lib/ui/rubrics/sheetKeys.ts';

/** Tells what a key makes a sheet of three criteria and four columns do. */
function told(key: string, held: { shift?: boolean; alt?: boolean; ctrl?: boolean } = {}): string[] {
  const said: string[] = [];
  const say =
    (name: string) =>
    (...given: unknown[]): void =>
      void said.push([name, ...given].join(' '));
  const sheet: KeyedSheet = {
    cursor: { row: 1, col: 2 },
    rows: 3,
    columns: 4,
    go: say('go'),
    shiftCriterion: say('shiftCriterion'),
    shiftLevel: say('shiftLevel'),
    addCriterion: say('addCriterion'),
    duplicateCriterion: say('duplicateCriterion'),
    removeCriterion: say('removeCriterion'),
    clear: say('clear'),
    undo: say('undo'),
    redo: say('redo'),
  };
  const { shift = false, alt = false, ctrl = false } = held;
  const press = { key, shiftKey: shift, altKey: alt, ctrlKey: ctrl, metaKey: false };
  const used = pressKey(sheet, press, (typed) => said.push(`edit ${typed}`));
  return used ? said : ['not used'];
}

describe('the keys of a rubric’s sheet', () => {
  const cases: readonly (readonly [Parameters<typeof told>, string])[] = [
    [['ArrowDown'], 'go 2 2 false'],
    [['ArrowLeft', { shift: true }], 'go 1 1 true'],
    [['ArrowUp', { alt: true }], 'shiftCriterion -1'],
    [['ArrowRight', { alt: true }], 'shiftLevel 1'],
    [['Home'], 'go 1 0 false'],
    [['End', { ctrl: true, shift: true }], 'go 2 3 true'],
    [['Enter'], 'edit null'],
    [['F2'], 'edit null'],
    [['x'], 'edit x'],
    [['é'], 'edit é'],
    [['Delete'], 'clear'],
    [['Backspace'], 'clear'],
    [['Delete', { ctrl: true }], 'removeCriterion'],
    [['Insert'], 'addCriterion'],
    [['d', { ctrl: true }], 'duplicateCriterion'],
    [['z', { ctrl: true }], 'undo'],
    [['Z', { ctrl: true, shift: true }], 'redo'],
    [['y', { ctrl: true }], 'redo'],
    [['c', { ctrl: true }], 'not used'],
    [['Tab'], 'not used'],
    [['Escape'], 'not used'],
    [['x', { alt: true }], 'not used'],
  ];
  for (const [given, wanted] of cases)
    it(`${[...Object.keys(given[1] ?? {}), given[0]].join(' ')}: ${wanted}`, () => {
      expect(told(...given)).to.deep.equal([wanted]);
    });
});
