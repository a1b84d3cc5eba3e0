import { expect } from 'chai';
import { placeOfEdit, takenBack, withoutEdits, type Edit } from '@alforja/core';

const points = (node: string, to: number, was?: number): Edit => ({
  op: 'points',
  node,
  to,
  ...(was === undefined ? {} : { was }),
});

describe('a layer without some of its edits', () => {
  it('gives what is left its place in the whole', () => {
    const layer = [points('a', 1, 0), points('b', 2, 0), points('a', 3, 1)];
    expect(withoutEdits(layer, new Set([1])).map((e) => e.at)).to.deep.equal([0, 2]);
    expect(withoutEdits(layer, new Set()).map((e) => e.edit)).to.deep.equal(layer);
    expect(withoutEdits([], new Set([0]))).to.deep.equal([]);
  });

  it('hands what the first of those that are gone saw to the next that stands', () => {
    const layer = [points('a', 1, 0), points('a', 2, 1), points('a', 3, 2), points('a', 4, 3)];
    expect(withoutEdits(layer, new Set([0, 1])).map((e) => e.edit.was)).to.deep.equal([0, 3]);
    expect(withoutEdits(layer, new Set([1, 2])).map((e) => e.edit.was)).to.deep.equal([0, 1]);
    expect(takenBack(layer, 3).map((e) => e.was)).to.deep.equal([0, 1, 2]);
  });

  it('hands nothing to an edit that has seen nothing yet', () => {
    const layer = [points('a', 1, 0), points('a', 2)];
    expect(takenBack(layer, 0)).to.deep.equal([points('a', 2)]);
  });

  it('does not touch edits of other places, however near', () => {
    const settings = (to: object, was: object): Edit => ({ op: 'settings', node: 'q', to, was }) as Edit;
    const content = (at: 'body' | 'prompt', to: string, was: string): Edit => ({
      op: 'content',
      node: 'a',
      at,
      to,
      was,
    });
    const layer = [
      settings({ attempts: 2 }, { attempts: null }),
      settings({ timeLimitMinutes: 20 }, { timeLimitMinutes: 10 }),
      content('body', 'x', 'y'),
      content('prompt', 'v', 'w'),
      points('a', 1, 0),
      points('b', 1, 7),
    ];
    for (const at of [0, 2, 4]) expect(takenBack(layer, at)).to.deep.equal(layer.filter((_, n) => n !== at));
    expect(new Set(layer.map(placeOfEdit)).size).to.equal(layer.length);
  });

  it('knows leaving out and bringing back for the same', () => {
    const out: Edit = { op: 'leave-out', node: 'a', kind: 'item', was: false };
    const back: Edit = { op: 'bring-back', node: 'a', kind: 'item', was: true };
    expect(placeOfEdit(out)).to.equal(placeOfEdit(back));
    expect(takenBack([out, back], 0)).to.deep.equal([{ ...back, was: false }]);
  });
});
