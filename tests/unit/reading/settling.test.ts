import { expect } from 'chai';
import fc from 'fast-check';
import type { Item, ItemHolder } from '../../../core/src/index.ts';
import { Settling } from '../../../core/src/reading/settling.ts';
import { kindsPackage } from '../../../demo/kinds.ts';
import { item12, readZip } from '../../support/read.ts';

/** Keeps copies, as a holder does that packs them. */
const copies: ItemHolder = {
  hold: (item) => structuredClone(item),
  holdLate: (item) => structuredClone(item),
  room: () => undefined,
  settled: (held, points) => Object.assign(held, points),
};

const choice = (
  says: string,
): string => `<presentation><material><mattext texttype="text/html">${says}</mattext></material>
  <response_lid ident="r" rcardinality="Single"><render_choice><response_label ident="A"><material><mattext>a</mattext>
  </material></response_label></render_choice></response_lid></presentation>`;
const WORTHLESS = `${choice('Which?')}<resprocessing>
  <outcomes><decvar varname="SCORE" vartype="Decimal"/></outcomes></resprocessing>`;
const LINKING = choice(
  'See &lt;a href="there.html"&gt;this&lt;/a&gt; and &lt;a href="gone.html"&gt;that&lt;/a&gt;.',
);

describe('settling items', () => {
  const items: Item[] = [];
  before(async () => {
    const { items: kinds } = await readZip(kindsPackage());
    items.push(...kinds, await item12(WORTHLESS), await item12(LINKING));
    // Running it fails in a way that nobody has thought of.
    items.push({ ...kinds[0]!, scoring: null as unknown as Item['scoring'] });
  });
  const files = new Set(['there.html']);

  it('comes to the same while documents are read and in the end, whatever quizzes give for them', () => {
    const weight = fc.constantFrom(1, 2, 0.5, 0, -1);
    fc.assert(
      fc.property(fc.nat(items.length - 1), weight, fc.boolean(), (at, given, held) => {
        const item = items[at]!;
        const atOnce = new Settling().whole(item, given, files);
        const settling = new Settling(held ? copies : undefined);
        const taken = settling.take(item);
        const inTheEnd = settling.whole(taken, given, files);
        const said = ({ item: { id, points, pointsExact, scale, body } }: typeof atOnce) => [
          ...[id, points, pointsExact, scale],
          body,
        ];
        expect(said(inTheEnd)).to.deep.equal(said(atOnce));
        expect(inTheEnd.found).to.deep.equal(atOnce.found);
        expect(inTheEnd.checked).to.deep.equal(atOnce.checked);
        expect(settling.asked(inTheEnd.item)).to.deep.equal(new Settling().asked(item));
        expect(inTheEnd.altered).to.equal(given !== 1);
      }),
      { numRuns: 300 },
    );
  });

  it('says which links are dead only once all files are known', () => {
    const settling = new Settling();
    const { checked } = settling.whole(settling.take(items.at(-2)!), 1, files);
    expect(checked.filter((f) => f.code === 'link-dead').map((f) => f.params)).to.deep.equal([
      { href: 'gone.html' },
    ]);
  });

  it('finds nothing positive where a weight takes everything', () => {
    const settling = new Settling();
    const worth = items.find((i) => i.points > 0)!;
    const codes = (weight: number) =>
      settling.whole(settling.take(worth), weight, files).checked.map((f) => f.code);
    expect(codes(0)).to.include('points-not-positive');
    expect(codes(3)).not.to.include('points-not-positive');
  });

  it('keeps an item that cannot be run, and says so', () => {
    const settling = new Settling();
    const { item, found } = settling.whole(settling.take(items.at(-1)!), 1, files);
    expect(item.id).to.equal(items[0]!.id);
    expect(found.map((f) => f.code)).to.deep.equal(['item-unreadable']);
  });
});
