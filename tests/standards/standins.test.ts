import { expect } from 'chai';
import fc from 'fast-check';
import { evaluate, readHolding, writeHolding, type Item } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { document as document12, escape } from '../../demo/qti12.ts';
import { readPackage, writeCartridge, writeQti21 } from '../../standins/formats/package.ts';
import { readQti12 } from '../../standins/formats/qti12Read.ts';
import { readItem21 } from '../../standins/formats/qti21Read.ts';
import { parse } from '../../standins/formats/xml.ts';
import {
  plain,
  scoreOf,
  type Accepted,
  type AcceptedNumber,
  type Held,
  type HeldItem,
  type Marking,
} from '../../standins/held.ts';
import { identifier, words } from '../support/arbitraries.ts';
import { read } from '../support/read.ts';
import { FIGURES, type Figure } from './figures.ts';

/**
 * Two readers and writers that share no code: the application's, and those of the simulated course systems.
 * Both are held to the same figures, and each has to understand what the other writes.
 */

/** What an answer gives by the application, in points. */
function scored(item: Item, answer: readonly string[]): number {
  const { id, baseType } = item.responses[0]!;
  const given = baseType === 'float' ? answer.map(Number) : [...answer];
  return evaluate(item, answer.length > 0 ? { [id]: given } : {}).score;
}

const theirs = ({ format, xml }: Figure): HeldItem =>
  format === 'qti1.2'
    ? readQti12(parse(document12(xml)), 'given.xml').items[0]!
    : readItem21(parse(xml), null);

describe('figures that two readers agree upon', () => {
  for (const figure of FIGURES) {
    const { source, format, xml, points, rows } = figure;
    it(`${source}: by the application`, async () => {
      const [item] = (await read(format === 'qti1.2' ? document12(xml) : xml)).items;
      expect(item!.points).to.equal(points);
      for (const [answer, score] of rows)
        expect(scored(item!, answer), answer.join(' + ') || 'nothing').to.equal(score);
    });
    it(`${source}: by a course system`, () => {
      const item = theirs(figure);
      expect(item.answer.kind).not.to.equal('kept');
      expect(item.points).to.equal(points);
      for (const [answer, score] of rows)
        expect(scoreOf(item, answer), answer.join(' + ') || 'nothing').to.equal(score);
    });
  }
});

const worth = fc.integer({ min: 1, max: 24 }).map((n) => n / 4);
const choice: fc.Arbitrary<Pick<HeldItem, 'answer' | 'points'>> = fc
  .tuple(
    fc.uniqueArray(identifier, { minLength: 2, maxLength: 5 }),
    fc.array(words, { minLength: 5, maxLength: 5 }),
    fc.constantFrom('one', 'all', 'each'),
    fc.array(worth, { minLength: 5, maxLength: 5 }),
    fc.boolean(),
    fc.integer({ min: 1, max: 3 }),
  )
  .map(([ids, texts, how, worths, shuffle, rightCount]) => {
    const right = ids.slice(0, how === 'one' ? 1 : Math.min(rightCount, ids.length));
    const each = Object.fromEntries(
      ids.map((id, at) => [id, right.includes(id) ? worths[at]! : -worths[at]!]),
    );
    const most = right.reduce((sum, id) => sum + each[id]!, 0);
    const marking: Marking =
      how === 'each' ? { by: 'each', worth: each, least: 0, most } : { by: 'all', right };
    return {
      points: how === 'each' ? most : worths[0]!,
      answer: {
        kind: 'choice',
        prompt: null,
        maxChoices: how === 'one' ? 1 : 0,
        shuffle,
        choices: ids.map((id, at) => ({ id, text: escape(`${texts[at]!} ${at}`), fixed: at === 4 })),
        marking,
      },
    };
  });

const text: fc.Arbitrary<Pick<HeldItem, 'answer' | 'points'>> = fc
  .tuple(
    fc.uniqueArray(words, { minLength: 1, maxLength: 3, selector: (w) => w.toLowerCase() }),
    fc.boolean(),
    worth,
  )
  .map(([answers, caseSensitive, points]) => ({
    points,
    answer: {
      kind: 'text',
      accepted: answers.map((t, at): Accepted => ({ text: t, caseSensitive, worth: points / (at + 1) })),
    },
  }));

const number: fc.Arbitrary<Pick<HeldItem, 'answer' | 'points'>> = fc
  .tuple(fc.integer({ min: -4000, max: 4000 }), fc.integer({ min: 0, max: 40 }), fc.boolean(), worth)
  .map(([at, half, includesHigh, points]) => {
    const [exact, low, high] = [at / 8, (at - half) / 8, (at + half) / 8];
    const accepted: AcceptedNumber = {
      exact,
      low,
      high,
      includesLow: true,
      includesHigh: includesHigh || half === 0,
      worth: points,
    };
    return { points, answer: { kind: 'number', accepted: [accepted] } };
  });

const essay = fc
  .integer({ min: 1, max: 20 })
  .map((points) => ({ points, answer: { kind: 'essay' } as const }));

const heldItem: fc.Arbitrary<HeldItem> = fc
  .tuple(identifier, words, words, fc.oneof(choice, text, number, essay), fc.option(words, { nil: null }))
  .map(([id, title, stem, known, feedback]) => ({
    id,
    title,
    category: null,
    body: `<p>${escape(stem)}</p>`,
    feedback: feedback === null ? [] : [{ id: 'general', on: null, text: `<p>${escape(feedback)}</p>` }],
    ...known,
  }));

const heldCourse: fc.Arbitrary<Held> = fc
  .uniqueArray(heldItem, { minLength: 2, maxLength: 6, selector: (i) => i.id })
  .map((items) => {
    const ids = items.map((i) => i.id);
    const half = Math.ceil(ids.length / 2);
    const pool = ids.slice(half);
    const section = { title: 'Fixed', instructions: null, shuffle: false };
    return {
      items,
      links: [],
      banks: [{ id: 'bank1', title: 'A bank', items: pool }],
      quizzes: [
        {
          id: 'quiz1',
          title: 'A quiz',
          attempts: 2,
          timeLimitMinutes: 45,
          passMark: null,
          instructions: '<p>Work alone.</p>',
          sections: [
            { ...section, items: ids.slice(0, half).map((item) => ({ item, weight: 1 })), draw: null },
            {
              ...section,
              title: 'Drawn',
              items: [],
              draw: { pick: 1, pool, bank: 'bank1', pointsEach: items[half]!.points },
            },
          ],
        },
      ],
    };
  });

/** Answers that tell items apart: each choice alone and the right ones, every text, numbers about the bounds. */
function answersFor({ answer }: HeldItem): string[][] {
  switch (answer.kind) {
    case 'choice': {
      const ids = answer.choices.map((c) => c.id);
      const right = answer.marking.by === 'all' ? [...answer.marking.right] : ids.slice(0, 2);
      return [[], ...ids.map((id) => [id]), ...(answer.maxChoices === 1 ? [] : [right, ids])];
    }
    case 'text':
      return [[], ['something else'], ...answer.accepted.flatMap((a) => [[a.text], [a.text.toUpperCase()]])];
    case 'number':
      return answer.accepted.flatMap((a) =>
        [a.low, a.high, a.exact!, a.low - 0.0625, a.high + 0.0625].map((n) => [String(n)]),
      );
    default:
      return [[]];
  }
}

/** Upper and lower case are one for these letters alone in every language and library. */
const plainCase = (answer: readonly string[]): boolean =>
  answer.every((a) => /^[\p{ASCII}]*$/u.test(a) || a.toUpperCase() === a);

const sent = (held: Held) => ({ held, title: 'Course', files: {}, sectionOf: () => '' });
const WRITERS = { cartridge: writeCartridge, 'qti2.1': writeQti21 } as const;

describe('what one writes and the other reads', () => {
  for (const [name, write] of Object.entries(WRITERS))
    it(`${name} of a course system scores the same here, item by item`, () =>
      fc.assert(
        fc.asyncProperty(heldCourse, async (held) => {
          const { items, quizzes, banks } = await readHolding('given.zip', write(sent(held)), nodePlatform);
          expect(
            quizzes.map((q) => [q.id, q.title, q.settings.attempts, q.settings.timeLimitMinutes]),
          ).to.deep.equal([['quiz1', 'A quiz', 2, 45]]);
          expect(quizzes[0]!.sections.at(-1)!.draw).to.deep.include({
            pick: 1,
            pointsEach: held.quizzes[0]!.sections[1]!.draw!.pointsEach,
          });
          expect(banks.map((b) => [b.title, b.items])).to.deep.equal([['A bank', held.banks[0]!.items]]);
          for (const theirs of held.items) {
            const ours = items.find((i) => i.id === theirs.id)!;
            expect([ours.title, ours.points], theirs.id).to.deep.equal([theirs.title, theirs.points]);
            for (const answer of answersFor(theirs).filter(plainCase))
              expect(scored(ours, answer), JSON.stringify([theirs, answer])).to.be.closeTo(
                scoreOf(theirs, answer) ?? 0,
                1e-9,
              );
          }
        }),
        { numRuns: 150 },
      ));

  for (const target of ['qti1.2', 'cc1.3', 'qti2.1'] as const)
    it(`${target} of the application scores the same in a course system`, () =>
      fc.assert(
        fc.asyncProperty(heldCourse, async (held) => {
          // From the system to the application, and from there in another form to the system again.
          const there = await readHolding('given.zip', writeCartridge(sent(held)), nodePlatform);
          const { packages } = writeHolding(there, target, () => null, nodePlatform);
          const back = packages.flatMap((p) => [...readPackage(p).held.items]);
          for (const item of held.items) {
            const again = back.find((i) => i.id === item.id)!;
            expect(again.answer.kind, JSON.stringify(again)).to.equal(item.answer.kind);
            expect(again.points).to.equal(item.points);
            expect(plain(again.body.replace('<answer/>', ''))).to.equal(plain(item.body));
            for (const answer of answersFor(item).filter(plainCase))
              expect(scoreOf(again, answer), JSON.stringify([item, again, answer])).to.satisfy(
                (score: number | null) =>
                  score === null
                    ? scoreOf(item, answer) === null
                    : Math.abs(score - scoreOf(item, answer)!) < 1e-3,
              );
          }
        }),
        { numRuns: 100 },
      ));
});
