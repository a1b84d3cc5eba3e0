import { expect } from 'chai';
import fc from 'fast-check';
import { compareHoldings, recognise } from '@alforja/core';
import {
  beside,
  brokenOff,
  explore,
  newPurse,
  refill,
  spend,
  within,
} from '../../../core/src/scoring/budget.ts';
import { rawScore } from '../../../core/src/scoring/evaluate.ts';
import { item21, read, SCORE21, itemXml21 } from '../../support/read.ts';

const spending = (steps: number): string =>
  within(
    steps,
    () => {
      for (;;) spend(1);
    },
    () => 'over',
  );

/** Finds out something that never ends. @returns the steps it was given */
function used(): number {
  let steps = 0;
  explore(
    () => {
      for (;;) {
        spend(1000);
        steps += 1000;
      }
    },
    () => undefined,
  );
  return steps;
}

describe('steps', () => {
  it('that are used up end what was done, and only that', () => {
    const before = brokenOff();
    expect(spending(1000)).to.equal('over');
    expect(brokenOff()).to.equal(before + 1);
    expect(
      within(
        10,
        () => (spend(10), 'done'),
        () => 'over',
      ),
    ).to.equal('done');
    expect(
      within(
        10,
        () => (spend(11), 'done'),
        () => 'over',
      ),
    ).to.equal('over');
  });

  it('of what is within count for what is around it, and never more than there are', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(50), { maxLength: 20 }), fc.nat(400), (parts, most) => {
        let used = 0;
        const came = within(
          most,
          () => {
            for (const part of parts) {
              const one = within(
                part,
                () => (spend(part), true),
                () => false,
              );
              if (one) used += part;
            }
            return 'done';
          },
          () => 'over',
        );
        const sum = parts.reduce((a, b) => a + b, 0);
        expect(came === 'done' || sum > most).to.equal(true);
        expect(used).to.be.at.most(most);
      }),
    );
  });

  it('let other errors through, and count on as before after them', () => {
    expect(() =>
      within(
        10,
        () => {
          throw new TypeError('mine');
        },
        () => 0,
      ),
    ).to.throw(TypeError, 'mine');
    expect(
      within(
        5,
        () => (spend(5), 'done'),
        () => 'over',
      ),
    ).to.equal('done');
  });

  it('of one piece of work run out together; the next has its own', () => {
    refill();
    const first = used();
    let last = first;
    for (let n = 0; n < 80; n++) last = used();
    expect(last)
      .to.be.below(first / 10)
      .and.above(1000);
    refill();
    expect(used()).to.equal(first);
  });

  it('of what is done beside a piece of work are its own, and none of the work’s', () => {
    refill();
    const alone = Array.from({ length: 60 }, used);
    refill();
    const purse = newPurse();
    const other: number[] = [];
    const work = Array.from({ length: 60 }, () => {
      other.push(beside(purse, used));
      return used();
    });
    expect(work).to.deep.equal(alone);
    expect(other, 'runs out as any other does').to.deep.equal(alone);
    expect(() =>
      beside(purse, () => {
        throw new Error('in between');
      }),
    ).to.throw('in between');
    refill();
    expect(used()).to.equal(alone[0]);
  });
});

describe('programs', () => {
  const response = '<responseDeclaration identifier="R" cardinality="single" baseType="float"/>';
  const body = '<itemBody><p>How far? <textEntryInteraction responseIdentifier="R"/></p></itemBody>';
  const one = '<baseValue baseType="float">1</baseValue>';
  const program = (depth: number, times: number): string =>
    `${response}${SCORE21}${body}<responseProcessing><setOutcomeValue identifier="SCORE"><sum>${`<repeat numberRepeats="${times}">`.repeat(depth)}${one}${'</repeat>'.repeat(depth)}</sum></setOutcomeValue></responseProcessing>`;

  it('end whatever they ask for, and score as they say where it is not too much', async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.integer({ min: 1, max: 8 }),
        fc.integer({ min: 1, max: 1500 }),
        async (depth, times) => {
          const item = await item21(program(depth, times));
          const score = rawScore(item, {});
          const most = Math.min(times, 1000) ** depth;
          expect(score === most || score === 0 || most > 10_000, `${depth} ${times} ${score}`).to.equal(true);
        },
      ),
      { numRuns: 40 },
    );
  });

  it('that were broken off are no recognised scoring, and are not said to be the same as others', async () => {
    const [a, b] = await Promise.all(
      [3, 4].map((depth) => read(itemXml21('i', program(depth, 1000)), 'i.xml')),
    );
    expect(recognise(a!.items[0]!).shape.kind).to.equal('program');
    const { verdict, pairs } = compareHoldings(a!, b!);
    expect(verdict).to.equal('altered');
    expect(pairs[0]!.differences.map((d) => d.facet)).to.include('scoring');
    expect(compareHoldings(a!, a!).verdict).to.equal('intact');
  });
});
