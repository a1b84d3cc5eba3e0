import { expect } from 'chai';
import fc from 'fast-check';
import { ItemPlaces, itemPlaces, ItemSet } from '@alforja/core';

const id = fc.constantFrom(...'abcdefghijk'.split(''), '__proto__', 'constructor', '');
const ids = fc.uniqueArray(id);
const lists = fc.array(fc.array(id));

describe('places of items', () => {
  it('are those in their list, asked for by one id or by a list of them (property)', () => {
    fc.assert(
      fc.property(ids, lists, (all, asked) => {
        const places = new ItemPlaces(all);
        for (const list of [all, ...asked]) {
          const wanted = list.map((one) => all.indexOf(one));
          expect([...places.of(list)]).to.deep.equal(wanted);
          expect([...places.of(list)], 'asked again').to.deep.equal(wanted);
          expect([...places.found(list)]).to.deep.equal(wanted.filter((at) => at >= 0));
          expect(list.map((one) => places.at(one) ?? -1)).to.deep.equal(wanted);
        }
      }),
    );
  });

  it('are found once for a list of items, and anew for another', () => {
    const items = [{ id: 'a' }, { id: 'b' }];
    expect(itemPlaces(items)).to.equal(itemPlaces(items));
    expect(itemPlaces([...items].reverse()).at('a')).to.equal(1);
    expect(itemPlaces(items).at('a')).to.equal(0);
  });
});

describe('a set of items', () => {
  it('holds what was added, once, whether there is such an item or not (property)', () => {
    fc.assert(
      fc.property(ids, lists, fc.array(id), (all, together, single) => {
        const set = new ItemSet(new ItemPlaces(all));
        const wanted = new Set<string>();
        const isNew = (one: string): boolean => !wanted.has(one) && wanted.add(one).size > 0;
        for (const list of together) {
          const added: string[] = [];
          set.addAll(list, (one) => added.push(one));
          expect(added).to.deep.equal(list.filter(isNew));
        }
        for (const one of single) expect(set.add(one)).to.equal(isNew(one));
        expect(set.among(all)).to.deep.equal(all.filter((one) => wanted.has(one)));
        for (const one of [...all, ...single, 'never']) expect(set.has(one)).to.equal(wanted.has(one));
        for (const [at, one] of all.entries()) expect(set.hasAt(at)).to.equal(wanted.has(one));
      }),
    );
  });
});
