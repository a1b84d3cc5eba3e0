import { expect } from 'chai';
import { matchItems, type Item } from '@alforja/core';
import { likePairs } from '../../../core/src/match/likePairs.ts';
import { read } from '../../support/read.ts';
import { Chance } from '../../trials/random.ts';
import { material } from './support.ts';

interface Asked {
  readonly id: string;
  readonly title?: string;
  readonly stem: string;
  readonly choices?: readonly string[];
  readonly category?: string;
  readonly right?: string;
}

const items = async (list: readonly Asked[]): Promise<readonly Item[]> => {
  const xml = list.map(
    ({ id, title = '', stem, choices = ['True', 'False'], category, right }) =>
      `<item ident="${id}" title="${title}">${category ? `<itemmetadata><qtimetadata><qtimetadatafield><fieldlabel>qmd_topic</fieldlabel><fieldentry>${category}</fieldentry></qtimetadatafield></qtimetadata></itemmetadata>` : ''}<presentation>${material(stem)}<response_lid ident="R"><render_choice>${choices.map((c, at) => `<response_label ident="${'ABCDEF'[at]}">${material(c)}</response_label>`).join('')}</render_choice></response_lid></presentation>${right ? `<resprocessing><respcondition><conditionvar><varequal respident="R">${right}</varequal></conditionvar><setvar action="Set">1</setvar></respcondition></resprocessing>` : ''}</item>`,
  );
  return (await read(`<questestinterop>${xml.join('')}</questestinterop>`)).items;
};

const paired = async (from: readonly Asked[], to: readonly Asked[]): Promise<Record<string, string>> =>
  Object.fromEntries(
    matchItems(await items(from), await items(to)).pairs.map((p) => [p.source.id, p.arrived.id]),
  );

describe('pairing of items that changed and are called otherwise', () => {
  it('goes by letters where words have no blanks between them', async () => {
    for (const [a, b, other] of [
      ['满潮时港口的水深是多少？', '满潮时港口的水深约是多少？', '灯塔的灯光是什么颜色？'],
      ['満潮時の水深はいくらですか', '満潮時の水深は何メートルですか', '灯台の色は何ですか'],
      ['ความลึกของน้ำที่ท่าเรือ', 'ความลึกของน้ำที่ท่าเรือตอนเช้า', 'สีของประภาคารคืออะไร'],
    ] as const)
      expect(
        await paired(
          [
            { id: 'a', stem: a },
            { id: 'o', stem: other },
          ],
          [
            { id: 'y', stem: other },
            { id: 'x', stem: b },
          ],
        ),
      ).to.deep.equal({ a: 'x', o: 'y' });
  });

  it('keeps vowel signs with their letters', async () => {
    expect(
      await paired(
        [{ id: 'a', stem: 'बंदरगाह की गहराई कितनी है' }],
        [{ id: 'x', stem: 'बंदरगाह की गहराई कितनी होगी' }],
      ),
    ).to.deep.equal({ a: 'x' });
  });

  it('is helped by title and category where the text is short', async () => {
    const from = [
      { id: 'a', title: 'Green light', stem: 'Port?' },
      { id: 'b', title: 'Red light', stem: 'Starboard?' },
    ];
    const to = [
      { id: 'y', title: 'Red light', stem: 'Larboard?' },
      { id: 'x', title: 'Green light', stem: 'Left?' },
    ];
    expect(await paired(from, to)).to.deep.equal({ a: 'x', b: 'y' });
  });

  it('does not take two for one because both are asked alike', async () => {
    expect(
      await paired(
        [{ id: 'a', stem: 'One nautical mile is 1852 metres.' }],
        [{ id: 'x', stem: 'The moon is full at springs.' }],
      ),
    ).to.deep.equal({});
  });

  it('believes a title only where one item has it', async () => {
    const from = ['shoal', 'beacon'].map((word) => ({
      id: word,
      title: 'Question',
      stem: `About the ${word} and nothing else`,
    }));
    const to = ['lantern', 'compass'].map((word) => ({
      id: `x${word}`,
      title: 'Question',
      stem: `Where to find a good ${word} at night`,
    }));
    expect(await paired(from, to)).to.deep.equal({});
  });

  it('lets one that is gone take no place of its twins, which ask the same in the same words', async () => {
    const twin = (id: string, title: string, right: string): Asked => ({
      id,
      title,
      stem: 'Which light is this?',
      choices: ['Red', 'Green', 'White'],
      right,
    });
    const from = [twin('q1', 'One', 'A'), twin('q2', 'Two', 'B'), twin('q3', 'Three', 'C')];
    // The first is gone; numbers begin anew, so that every identifier is another's.
    const to = [twin('q1', 'Two', 'B'), twin('q2', 'Three', 'C')];
    expect(await paired(from, to)).to.deep.equal({ q2: 'q1', q3: 'q2' });
    const untitled = (list: readonly Asked[]): Asked[] => list.map((a) => ({ ...a, title: '' }));
    expect(await paired(untitled(from), untitled(to)), 'by the key alone').to.deep.equal({
      q2: 'q1',
      q3: 'q2',
    });
  });

  it('takes what stands between the same neighbours where little of it is left', async () => {
    const row = (middle: string, own: string): Asked[] => [
      { id: `${own}1`, stem: 'Which buoy marks the fairway at night?' },
      { id: `${own}2`, stem: middle },
      { id: `${own}3`, stem: 'Which chart shows the harbour entrance?' },
    ];
    expect(await paired(row('Depth at noon?', 'a'), row('Depth at midnight?', 'b'))).to.deep.equal({
      a1: 'b1',
      a2: 'b2',
      a3: 'b3',
    });
  });
});

describe('items nearly the same', () => {
  /** Many items of few words, so that most pairs of words stand in many of them; every fiftieth is planted. */
  function planted(count: number, vocabulary: number): { items: Item[]; copies: Set<string> } {
    const chance = new Chance(11);
    const words = Array.from({ length: vocabulary }, (_, n) => `w${n}`);
    const copies = new Set<string>();
    const texts: string[][] = [];
    for (let at = 0; at < count; at++) {
      if (at > 50 && at % 50 === 0) {
        const copy = [...texts[chance.whole(0, at - 2)]!];
        copy[chance.whole(0, copy.length - 1)] = `changed${at}`;
        copies.add(`i${at}`);
        texts.push(copy);
      } else texts.push(Array.from({ length: chance.whole(28, 40) }, () => chance.pick(words)));
    }
    const made = texts.map((text, at) => ({
      id: `i${at}`,
      title: '',
      body: [{ kind: 'element', name: 'p', attrs: {}, children: [{ kind: 'text', text: text.join(' ') }] }],
    }));
    return { items: made as unknown as Item[], copies };
  }

  it('are found, at least 99 of 100, however common their words are', () => {
    for (const vocabulary of [30, 60, 2000]) {
      const { items: all, copies } = planted(6000, vocabulary);
      const found = new Set(likePairs(all).map((p) => p.item.id));
      const hit = [...copies].filter((id) => found.has(id)).length;
      expect(hit / copies.size, String(vocabulary)).to.be.at.least(0.99);
      expect(found.size - hit, 'nothing else is like another').to.be.at.most(copies.size * 0.05);
    }
  });
});
