import { expect } from 'chai';
import { evaluate, inspectReport } from '@alforja/core';
import { codes, item12, read } from '../../support/read.ts';
import { items12, material } from './support.ts';

const STEPS = ['A', 'B', 'C', 'D', 'E', 'F', 'G'];
const RIGHT = ['C', 'A', 'G', 'F', 'B', 'E', 'D'];

const ordering = (processing: string, maximum = 1, steps = STEPS): string =>
  `<presentation>${material('In which order?')}<response_lid ident="R" rcardinality="Ordered"><render_choice>${steps
    .map((s) => `<response_label ident="${s}">${material(`Step ${s}`)}</response_label>`)
    .join(
      '',
    )}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" minvalue="0" maxvalue="${maximum}"/></outcomes>${processing}</resprocessing>`;

const when = (tests: string, score: number, action = 'Set', goesOn = 'No'): string =>
  `<respcondition continue="${goesOn}"><conditionvar>${tests}</conditionvar><setvar varname="SCORE" action="${action}">${score}</setvar></respcondition>`;
const at = (value: string, index: number): string =>
  `<varequal respident="R" index="${index}">${value}</varequal>`;
const bare = (value: string): string => `<varequal respident="R">${value}</varequal>`;

/** Every way of saying one order. */
const WAYS: Readonly<Record<string, string>> = {
  'by indexes': ordering(when(RIGHT.map((v, n) => at(v, n + 1)).join(''), 1)),
  'by indexes in any order': ordering(
    when(
      `<and>${RIGHT.map((v, n) => at(v, n + 1))
        .reverse()
        .join('')}</and>`,
      1,
    ),
  ),
  'by one value after the other': ordering(when(RIGHT.map(bare).join(''), 1)),
  'by one value after the other, inside "and"': ordering(when(`<and>${RIGHT.map(bare).join('')}</and>`, 1)),
  'by points for each place': ordering(RIGHT.map((v, n) => when(at(v, n + 1), 1, 'Add', 'Yes')).join(''), 7),
};

describe('an ordering of many steps', () => {
  for (const [way, xml] of Object.entries(WAYS)) {
    it(`has its key and its points, said ${way}`, async () => {
      const holding = await read(items12(xml));
      const [item] = inspectReport(holding).items;
      expect(item!.key).to.deep.equal(RIGHT.map((s) => `Step ${s}`));
      expect(item!.points).to.equal(way.includes('each place') ? 7 : 1);
      expect(codes(holding)).to.not.include('points-unreached');
    });
  }

  it('scores only the right order where the whole order counts', async () => {
    const item = await item12(WAYS['by one value after the other']!);
    expect(evaluate(item, { R: RIGHT }).score).to.equal(1);
    expect(evaluate(item, { R: [...RIGHT].reverse() }).score).to.equal(0);
    expect(evaluate(item, {}).score).to.equal(0);
  });

  it('is found for any number of steps up to twenty', async () => {
    for (let length = 2; length <= 20; length++) {
      const steps = Array.from({ length }, (_, n) => `s${n}`);
      const right = steps.map((_, n) => steps[(n * 7 + 3) % length]!);
      if (new Set(right).size < length) continue;
      const xml = ordering(when(right.map((v, n) => at(v, n + 1)).join(''), 2), 2, steps);
      const [item] = inspectReport(await read(items12(xml))).items;
      expect(item!.key, String(length)).to.deep.equal(right.map((s) => `Step ${s}`));
      expect(item!.points).to.equal(2);
    }
  });

  it('names a declared maximum that no answer reaches, and never gives more than all points', async () => {
    // The condition asks for more steps than there are.
    const xml = ordering(when(bare('A') + bare('nowhere'), 1) + when(at('B', 1), 1), 100);
    const holding = await read(items12(xml));
    expect(codes(holding)).to.include('points-unreached');
    const [item] = holding.items;
    for (const order of [STEPS, RIGHT, ['B', ...STEPS.filter((s) => s !== 'B')]])
      expect(evaluate(item!, { R: order }).score).to.be.at.most(item!.points);
  });
});
