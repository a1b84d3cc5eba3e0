import { expect } from 'chai';
import fc from 'fast-check';
import { applyEdits, evaluate, isRefused, recognise, type Edit, type Holding } from '@alforja/core';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import { read } from '../../support/read.ts';
import { choicesIn } from './support.ts';

describe('choices in another order', () => {
  let holding: Holding;
  before(async () => {
    holding = await read(bankXml('lights', LIGHTS_BANK, PLAIN, 'Lights'));
  });
  const picked = () => holding.items.filter((i) => choicesIn(i).length > 2);
  const order = (node: string, to: readonly string[]): Edit => ({ op: 'choice-order', node, to: [...to] });

  it('stand as they were put, and every answer scores as before', () => {
    fc.assert(
      fc.property(fc.nat(100), fc.infiniteStream(fc.nat(1000)), (n, random) => {
        const list = picked();
        const item = list[n % list.length]!;
        const to = choicesIn(item)
          .map((id) => ({ id, by: random.next().value as number }))
          .sort((a, b) => a.by - b.by)
          .map(({ id }) => id);
        const done = applyEdits(holding, [order(item.id, to)]);
        expect(done.refused).to.deep.equal([]);
        const now = done.holding.items.find((i) => i.id === item.id)!;
        expect(choicesIn(now)).to.deep.equal(to);
        expect(recognise(now).key).to.deep.equal(recognise(item).key);
        const response = item.responses[0]!.id;
        for (const id of to)
          expect(evaluate(now, { [response]: [id] }).score).to.equal(
            evaluate(item, { [response]: [id] }).score,
          );
      }),
      { numRuns: 40 },
    );
  });

  it('have to be just those that are there', () => {
    const [item] = picked();
    const ids = choicesIn(item!);
    for (const to of [ids.slice(1), [...ids, 'more'], [ids[0]!, ...ids.slice(0, -1)]]) {
      const { refused } = applyEdits(holding, [order(item!.id, to)]);
      expect([isRefused(refused[0]!.why), refused[0]!.why.refused], to.join()).to.deep.equal([
        true,
        'order-other',
      ]);
    }
    const typed = holding.items.find((i) => choicesIn(i).length === 0)!;
    expect(applyEdits(holding, [order(typed.id, ['A'])]).refused[0]!.why.refused).to.equal('choice-place');
  });
});
