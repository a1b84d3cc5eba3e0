import { expect } from 'chai';
import fc from 'fast-check';
import { changed, compareHoldings, make, newBank, NO_FILTER, withItems, type QuizDraft } from '@alforja/core';
import { writeHolding, readHolding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { chapterBanks } from '../../../demo/chapters.ts';
import { fileReader } from '@alforja/core';
import { composed, emptyQuiz, place, question } from '../../support/making.ts';

const at = (where: string, item: string) => ({ place: where, item });
const drawOf = (where: string, more = {}) => ({
  pick: 2,
  pointsEach: null,
  pool: { from: [{ place: where, bank: 'bank', filter: NO_FILTER }], named: [], without: [] },
  ...more,
});

describe('a quiz put together out of banks', () => {
  const places = {
    a: place([question('one'), question('two', { points: 2 }), question('three')]),
    b: place([question('one', { text: 'Another one altogether?' }), question('four', { points: 3 })]),
  };

  it('keeps ids of their own for items of one id in two places', () => {
    const draft = changed(emptyQuiz(), {
      do: 'add',
      section: 'section-1',
      items: [at('a', 'one'), at('b', 'one'), at('b', 'four')],
    });
    const { holding, from } = composed(draft, places);
    expect(holding.items.map((i) => i.id)).to.deep.equal(draft.sections[0]!.items.map((i) => i.key));
    expect(new Set(holding.items.map((i) => i.id)).size).to.equal(3);
    expect([...from.values()]).to.deep.equal([at('a', 'one'), at('b', 'one'), at('b', 'four')]);
  });

  it('gives each item what the draft says, scoring and all', () => {
    let draft = changed(emptyQuiz(), { do: 'add', section: 'section-1', items: [at('a', 'two')] });
    draft = changed(draft, { do: 'points', keys: ['two'], to: 5 });
    draft = changed(draft, { do: 'section-add', title: 'Drawn', draw: drawOf('b', { pointsEach: 4 }) });
    const { holding } = composed(draft, places);
    expect(holding.items.map((i) => [i.id, i.points])).to.deep.equal([
      ['two', 5],
      ['one', 4],
      ['four', 4],
    ]);
    expect(holding.items[0]!.scale).to.equal(2.5);
    expect(holding.quizzes[0]!.sections[1]!.draw).to.deep.include({ pick: 2, pointsEach: 4 });
  });

  it('says what is gone, and holds the rest', () => {
    const draft = changed(emptyQuiz(), {
      do: 'add',
      section: 'section-1',
      items: [at('a', 'one'), at('a', 'nobody'), at('nowhere', 'x')],
    });
    const { holding, gone } = composed(draft, places);
    expect(holding.items.map((i) => i.id)).to.deep.equal(['one']);
    expect(gone).to.deep.equal([at('a', 'nobody'), at('nowhere', 'x')]);
  });

  it('gives files of one name from two places two names, wherever they are shown', () => {
    const pictured = (id: string) =>
      make.item({
        id,
        body: [make.element('img', [], { src: 'img/a.png', alt: '' })],
        files: [{ path: 'img/a.png', present: true }],
      });
    const file = (sha256: string, from: string) => ({ path: 'img/a.png', bytes: 1, sha256, from });
    const { holding } = composed(
      changed(emptyQuiz(), {
        do: 'add',
        section: 'section-1',
        items: [at('p', 'x'), at('q', 'y'), at('r', 'z')],
      }),
      {
        p: place([pictured('x')], { files: [file('1', 'first')] }),
        q: place([pictured('y')], { files: [file('2', 'second')] }),
        r: place([pictured('z')], { files: [file('1', 'first')] }),
      },
    );
    expect(holding.files.map((f) => [f.path, f.from])).to.deep.equal([
      ['img/a.png', 'first'],
      ['img/a-2.png', 'second'],
    ]);
    expect(holding.items.map((i) => i.files[0]!.path)).to.deep.equal([
      'img/a.png',
      'img/a-2.png',
      'img/a.png',
    ]);
  });

  it('takes rubrics along for those who ask, attached to what they grade here', () => {
    const rubric = {
      id: 'r',
      title: 'Essays',
      attachedTo: ['two', 'elsewhere'],
    } as unknown as ReturnType<typeof make.holding>['rubrics'][number];
    const { holding } = composed(
      changed(emptyQuiz(), { do: 'add', section: 'section-1', items: [at('c', 'two')] }),
      { c: place([question('two')], { rubrics: [rubric] }) },
    );
    expect(holding.rubrics.map((r) => [r.id, r.attachedTo])).to.deep.equal([['r', ['two']]]);
  });

  it('comes back as it was written', async () => {
    const bytes = chapterBanks();
    const chapters = await readHolding('chapters.zip', bytes, nodePlatform);
    const [marks, tides] = chapters.banks;
    const here = { ch: { holding: chapters } };
    const pool = (bank: string) => ({
      from: [{ place: 'ch', bank, filter: NO_FILTER }],
      named: [],
      without: [],
    });
    let draft: QuizDraft = changed(emptyQuiz(), {
      do: 'add',
      section: 'section-1',
      items: tides!.items.slice(0, 5).map((item) => at('ch', item)),
    });
    draft = changed(draft, {
      do: 'section-add',
      title: 'Marks',
      draw: { pick: 10, pointsEach: 2, pool: pool(marks!.id) },
    });
    draft = changed(draft, {
      do: 'settings',
      to: { instructions: 'Use the chart.', timeLimitMinutes: 40, attempts: 2, passMark: 13 },
    });
    const { holding } = composed(draft, here);
    const reader = await fileReader('chapters.zip', bytes, nodePlatform);
    const { packages, findings } = writeHolding(holding, 'qti3.0', reader, nodePlatform);
    expect(findings.filter((f) => f.code.startsWith('loss-'))).to.deep.equal([]);
    const back = await readHolding('made.zip', packages[0]!, nodePlatform);
    const { verdict, counts } = compareHoldings(holding, back);
    expect({ verdict, ...counts }).to.include({
      verdict: 'intact',
      intact: 27,
      altered: 0,
      missing: 0,
      extra: 0,
    });
    expect(back.quizzes[0]!.settings).to.deep.include({ timeLimitMinutes: 40, attempts: 2, passMark: 13 });
    expect(back.quizzes[0]!.sections[1]!.draw).to.deep.include({ pick: 10, pointsEach: 2 });
  });

  it('holds each item once, under one id, whatever is asked for', () => {
    const one = fc.record({
      place: fc.constantFrom('a', 'b'),
      item: fc.constantFrom('one', 'two', 'three', 'four'),
    });
    fc.assert(
      fc.property(fc.array(fc.array(one, { maxLength: 6 }), { maxLength: 4 }), (adds) => {
        const draft = adds.reduce(
          (d, items) => changed(d, { do: 'add', section: 'section-1', items }),
          changed(emptyQuiz(), { do: 'section-add', title: '', draw: drawOf('a') }),
        );
        const { holding, from, gone } = composed(draft, places);
        const ids = holding.items.map((i) => i.id);
        expect(new Set(ids).size).to.equal(ids.length);
        expect([...from.keys()].sort()).to.deep.equal([...ids].sort());
        const asked = new Set(draft.sections.flatMap((s) => s.items.map((i) => `${i.place} ${i.item}`)));
        expect(asked.size).to.equal(draft.sections.flatMap((s) => s.items).length);
        for (const s of holding.quizzes[0]!.sections)
          for (const id of [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])])
            expect(ids).to.include(id);
        expect(
          gone.every((g) => !places[g.place as 'a'].holding.items.some((i) => i.id === g.item)),
        ).to.equal(true);
      }),
    );
  });
});

describe('a bank of one’s own', () => {
  it('takes each item once, in the order in which they came', () => {
    const bank = withItems(withItems(newBank('Mine'), [at('a', 'one'), at('b', 'one')]), [
      at('a', 'one'),
      at('a', 'two'),
    ]);
    expect(bank.items.map((i) => [i.place, i.item, i.key])).to.deep.equal([
      ['a', 'one', 'one'],
      ['b', 'one', 'item-2'],
      ['a', 'two', 'two'],
    ]);
  });
});
