import { expect } from 'chai';
import { evaluate, inspectReport, parseAnswers, scoreReport } from '@alforja/core';
import { item12 as one, read } from '../../support/read.ts';
import { differences, facets, items12 } from './support.ts';

const blank = (conditions: string, kind = 'Decimal'): string =>
  `<presentation><material><mattext>How far?</mattext></material><response_num ident="R"><render_fib fibtype="${kind}"/></response_num></presentation><resprocessing><outcomes><decvar maxvalue="2"/></outcomes>${conditions}</resprocessing>`;
const give = (test: string, score: number): string =>
  `<respcondition><conditionvar>${test}</conditionvar><setvar action="Set">${score}</setvar></respcondition>`;
const between = (low: number, high: number): string =>
  `<vargte respident="R">${low}</vargte><varlte respident="R">${high}</varlte>`;
const text = (test: string): string =>
  `<presentation><material><mattext>Which light?</mattext></material><response_str ident="R"><render_fib/></response_str></presentation><resprocessing><outcomes><decvar maxvalue="1"/></outcomes>${give(test, 1)}</resprocessing>`;

describe('a number with a band for part of the points', () => {
  it('has the exact value or the range of full credit as its key', async () => {
    const key = async (xml: string): Promise<string[]> =>
      inspectReport(await read(items12(xml))).items[0]!.key;
    expect(
      await key(blank(give('<varequal respident="R">12.5</varequal>', 2) + give(between(12, 13), 1))),
    ).to.deep.equal(['12.5']);
    expect(await key(blank(give(between(12.4, 12.6), 2) + give(between(12, 13), 1)))).to.deep.equal([
      '12.4..12.6',
    ]);
  });

  it('differs by its band', async () => {
    const with_ = (low: number): string =>
      items12(blank(give(between(12.4, 12.6), 2) + give(between(low, 13), 1)));
    const [found] = await differences(with_(12), with_(11));
    expect(found!.facet).to.equal('scoring');
    expect(found!.example).to.deep.include({ to: 1, from: 0 });
  });
});

describe('a substring', () => {
  it('in which case begins to matter differs by that', async () => {
    const part = (sensitive: string): string =>
      items12(text(`<varsubstring respident="R" case="${sensitive}">Fathom</varsubstring>`));
    const [found, ...more] = await differences(part('No'), part('Yes'));
    expect(more).to.deep.equal([]);
    expect(found!.facet).to.equal('case-sensitivity');
    expect(found!.example!.from).to.not.equal(found!.example!.to);
  });

  it('of another word differs by its key', async () => {
    const part = (word: string): string =>
      items12(text(`<varsubstring respident="R">${word}</varsubstring>`));
    expect(await facets(part('fathom'), part('cable'))).to.deep.equal(['key']);
  });
});

describe('a number in an odd spelling', () => {
  // XML Schema 1.1 Part 2, "double": sign, digits, point, exponent; white space around it is gone.
  const spelled: readonly (readonly [string, number])[] = [
    ['12.50', 1],
    ['+12.5', 1],
    ['1.25e1', 1],
    ['125E-1', 1],
    [' 12.5 ', 1],
    ['012.5', 1],
    ['12,5', 1],
    ['12.5.0', 0],
    ['0x0C', 0],
    ['12.5 nm', 0],
    ['', 0],
    ['NaN', 0],
  ];
  for (const [written, score] of spelled)
    it(`is ${score ? 'that number' : 'none'}: "${written}"`, async () => {
      const item = await one(blank(give('<varequal respident="R">12.5</varequal>', 1)));
      expect(scoreReport(item, parseAnswers(item, [`R=${written}`])).score).to.equal(score);
    });

  it('with thousands set apart is not taken for another', async () => {
    const item = await one(blank(give('<varequal respident="R">1</varequal>', 1)));
    expect(scoreReport(item, parseAnswers(item, ['R=1,000'])).score).to.equal(0);
  });

  it('says the same in the source, however it is spelled', async () => {
    const value = (written: string): string =>
      items12(blank(give(`<varequal respident="R">${written}</varequal>`, 2)));
    for (const written of ['12.50', '+12.5', '1.25E1', ' 12.5 '])
      expect(await facets(value('12.5'), value(written)), written).to.deep.equal([]);
  });
});

describe('an answer that is not given', () => {
  it('is NULL: a comparison with it is neither true nor false, and neither is its opposite', async () => {
    const item = await one(blank(give('<not><varequal respident="R">1</varequal></not>', 1)));
    expect(evaluate(item, {}).score, 'QTI 1.2: not equal holds').to.equal(1);
  });
});

describe('answers that overlap', () => {
  it('are judged in their order', async () => {
    const item = await one(
      `<presentation><response_str ident="R"><render_fib/></response_str></presentation><resprocessing><outcomes><decvar maxvalue="2"/></outcomes>${give('<varequal respident="R" case="Yes">Fathom</varequal>', 2)}${give('<varequal respident="R" case="No">fathom</varequal>', 1)}</resprocessing>`,
    );
    expect([evaluate(item, { R: ['Fathom'] }).score, evaluate(item, { R: ['FATHOM'] }).score]).to.deep.equal([
      2, 1,
    ]);
    const other = items12(
      `<presentation><response_str ident="R"><render_fib/></response_str></presentation><resprocessing><outcomes><decvar maxvalue="2"/></outcomes>${give('<varequal respident="R" case="No">fathom</varequal>', 1)}${give('<varequal respident="R" case="Yes">Fathom</varequal>', 2)}</resprocessing>`,
    );
    expect(
      (await read(other)).findings.map((f) => f.code),
      'the second is never reached',
    ).to.include('points-unreached');
  });
});
