import { expect } from 'chai';
import fc from 'fast-check';
import { z } from 'zod';
import { codec, DocumentError } from '../../../src/lib/server/store/codec.ts';

const Point = z.object({ x: z.number(), y: z.number() });

describe('the codec of a document', () => {
  it('gives back what it wrote, whatever the names in it', () => {
    const names = codec('names', z.record(z.string(), z.number()));
    fc.assert(
      fc.property(
        fc.dictionary(
          fc.string().filter((k) => !k.startsWith('$') && k !== '__proto__'),
          fc.integer(),
        ),
        (given) => {
          expect(names.read(names.write(given))).to.deep.equal({ ...given });
        },
      ),
    );
  });

  it('gives back lists, which carry their version too', () => {
    const list = codec('list', z.array(z.string()));
    fc.assert(
      fc.property(fc.array(fc.string()), (given) => {
        expect(list.read(list.write(given))).to.deep.equal(given);
      }),
    );
    expect(list.write(['a'])).to.equal('{"$v":1,"$list":["a"]}');
  });

  it('takes what has no version for version 1', () => {
    expect(codec('point', Point).read('{"x":1,"y":2}')).to.deep.equal({ x: 1, y: 2 });
    expect(codec('list', z.array(z.number())).read('[1,2]')).to.deep.equal([1, 2]);
  });

  it('leads older documents up step by step, each once', () => {
    const steps: string[] = [];
    const point = codec('point', Point, [
      (old) => {
        steps.push('1 to 2');
        return { ...(old as object), y: 5 };
      },
      (old) => {
        steps.push('2 to 3');
        return { ...(old as object), x: 7 };
      },
    ]);
    expect(point.read('{"x":1}')).to.deep.equal({ x: 7, y: 5 });
    expect(point.read('{"$v":2,"x":1,"y":2}')).to.deep.equal({ x: 7, y: 2 });
    expect(point.read(point.write({ x: 1, y: 2 }))).to.deep.equal({ x: 1, y: 2 });
    expect(steps).to.deep.equal(['1 to 2', '2 to 3', '2 to 3']);
  });

  const bad: readonly [what: string, text: string][] = [
    ['no JSON', '{"x":'],
    ['another shape', '{"x":"one","y":2}'],
    ['a later version', '{"$v":9,"x":1,"y":2}'],
    ['nothing', 'null'],
  ];
  for (const [what, text] of bad)
    it(`says what kind of document it is that is ${what}`, () => {
      expect(() => codec('point', Point).read(text)).to.throw(DocumentError, /^A point in the database/u);
    });

  it('leaves an empty column empty', () => {
    expect(codec('point', Point).readOptional(null)).to.equal(null);
  });
});
