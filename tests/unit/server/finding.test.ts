import { expect } from 'chai';
import { findEverything } from '../../../src/lib/server/library/finding.ts';
import { placesFound } from '../../../src/lib/server/store/searchItems.ts';
import type { SearchGroupName } from '../../../src/lib/shared/finding.ts';
import { document as qti } from '../../../demo/qti12.ts';
import { brought, closeServer, openServer } from '../../support/server.ts';

/** One item of QTI 1.2 with two choices, the first of them right. */
const item = (id: string, stem: string, right: string, wrong: string, title = ''): string =>
  `<item ident="${id}" title="${title}"><presentation><material><mattext>${stem}</mattext></material><response_lid ident="r" rcardinality="Single"><render_choice>
<response_label ident="a"><material><mattext>${right}</mattext></material></response_label><response_label ident="b"><material><mattext>${wrong}</mattext></material></response_label>
</render_choice></response_lid></presentation><resprocessing><outcomes><decvar/></outcomes><respcondition><conditionvar><varequal respident="r">a</varequal></conditionvar><setvar>1</setvar></respcondition></resprocessing></item>`;

const found = async (query: string, of: SearchGroupName = 'items'): Promise<string[]> =>
  (await findEverything(query, 20)).find((g) => g.of === of)?.hits.map((h) => h.name) ?? [];

describe('the one search', () => {
  before(async () => {
    await openServer();
    await brought(
      'zq-first.xml',
      qti(
        [
          item('f1', 'Où est la bouée cardinale zqord ?', 'au nord', 'ailleurs zqouest', 'Balisage zqtitre'),
          item('f2', 'Lines of equal variation zqvar', 'zqisogonal', 'zqisobar'),
          item('f3', '潮位の計算はどのように行いますか', '十二分法', '三角法'),
          item('f4', 'كم عرض الميناء', 'خمسون', 'ستون'),
          item('f5', 'वर्तमान ज्वार की ऊँचाई', 'चार', 'पाँच'),
          item('f6', 'Der Zqschleusenwärter grüßt', 'ja', 'nein'),
        ].join(''),
      ),
    );
    await brought(
      'zq-second.xml',
      qti(item('f1', 'Où est la bouée cardinale zqord ?', 'au nord', 'ailleurs zqouest', 'Balisage zqtitre')),
    );
  });
  after(closeServer);

  const BUOY = 'Où est la bouée cardinale zqord ?';
  const cases: [what: string, query: string, hits: string[]][] = [
    ['beginnings of words in any order, accents aside', 'zqord bouee card', [BUOY]],
    ['a choice that is wrong', 'zqouest', [BUOY]],
    ['the title', 'zqtitre', [BUOY]],
    ['the key', 'zqisogonal', ['Lines of equal variation zqvar']],
    ['a part within a word', 'qisogon', ['Lines of equal variation zqvar']],
    ['a wrong letter', 'zqisogonel', ['Lines of equal variation zqvar']],
    ['two letters that changed places', 'zqisogoanl', ['Lines of equal variation zqvar']],
    ['Japanese, from the middle', '位の計算', ['潮位の計算はどのように行いますか']],
    ['Japanese, one character', '潮', ['潮位の計算はどのように行いますか']],
    ['Japanese, the key', '十二分', ['潮位の計算はどのように行いますか']],
    ['Arabic', 'الميناء', ['كم عرض الميناء']],
    ['Devanagari', 'ज्वार', ['वर्तमान ज्वार की ऊँचाई']],
    ['German without its dots', 'zqschleusenwarter grusst', ['Der Zqschleusenwärter grüßt']],
    ['every word has to fit', 'zqord zqisogonal', []],
    ['nothing of that name', 'zzzzqqq', []],
    ['no words', ' -- ', []],
    ['what looks like a command', '"; DROP TABLE items; --', []],
    ['operators of the index', 'zqord NOT bouee NEAR(', []],
  ];
  for (const [what, query, hits] of cases)
    it(what, async () => expect(await found(query)).to.deep.equal(hits));

  it('tells an item once, its key, and in how many packages it stands', async () => {
    const [group] = await findEverything('zqord', 20);
    expect(group!.of).to.equal('items');
    expect(group!.hits).to.have.length(1);
    expect(group!.hits[0]!.note).to.equal('key: au nord · in 2 packages');
  });

  it('finds packages by a part of their name', async () => {
    expect(await found('secnd zq', 'packages')).to.deep.equal(['zq-second.xml']);
  });

  it('finds the places of items in one package, and by their key alone', async () => {
    const held = await brought('zq-third.xml', qti(item('a', 'zqone', 'zqtwo', 'zqthree')));
    const places = async (query: string, key: string): Promise<number[]> => [
      ...(await placesFound(held.readingId!, query, key)),
    ];
    expect(await places('zqthree', '')).to.deep.equal([0]);
    expect(await places('', 'zqtwo')).to.deep.equal([0]);
    expect(await places('', 'zqthree')).to.deep.equal([]);
    expect(await places('zqone', 'zqtwo')).to.deep.equal([0]);
    expect(await places('zqord', '')).to.deep.equal([]);
  });
});
