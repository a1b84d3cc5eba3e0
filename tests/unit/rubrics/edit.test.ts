import { expect } from 'chai';
import fc from 'fast-check';
import { rubricPrint, type Rubric } from '@alforja/core';
import {
  clearBlock,
  columnsIn,
  duplicateCriterion,
  duplicateLevel,
  insertCriterion,
  insertLevel,
  levelOfText,
  levelText,
  moveCriterion,
  moveLevel,
  newRubric,
  pasteTexts,
  removeCriterion,
  removeLevel,
  rubricPoints,
  setCriterion,
  setLevel,
  textsOf,
} from '@alforja/core/edit';

const word = fc.stringMatching(/^[A-Za-z]{1,8}$/u);
const level = fc.record({
  title: word,
  points: fc.option(
    fc.integer({ min: 0, max: 9 }).map((n) => ({ low: n, high: n })),
    { nil: null },
  ),
  description: fc.oneof(
    fc.constant(''),
    fc.constantFrom('says what it asks for.', '潮汐を使った計画である。', 'الوصف هنا كامل.'),
  ),
  feedback: fc.constant(''),
});
const sheet: fc.Arbitrary<Rubric> = fc
  .array(fc.tuple(word, fc.array(level, { minLength: 1, maxLength: 5 })), { minLength: 1, maxLength: 5 })
  .map((rows) => ({
    ...newRubric('r', 'R'),
    criteria: rows.map(([title, levels], at) => ({
      id: `c${at}`,
      title,
      description: '',
      weight: null,
      outcome: null,
      levels: levels.map((l, n) => ({ ...l, id: `c${at}l${n}` })),
    })),
  }));
const ids = (r: Rubric): string[] => r.criteria.flatMap((c) => [c.id, ...c.levels.map((l) => l.id)]);
const whole = (r: Rubric) => ({
  from: { row: 0, col: 0 },
  to: { row: r.criteria.length - 1, col: columnsIn(r) - 1 },
});
const at = fc.nat({ max: 5 });

describe('rubrics: changing one like a sheet', () => {
  it('what is put in and taken out again leaves it as it was, and no identifier is ever there twice (property)', () => {
    fc.assert(
      fc.property(sheet, at, at, (r, n, m) => {
        const [row, to] = [n % r.criteria.length, m % r.criteria.length];
        const same = (now: Rubric) => expect(rubricPrint(now)).to.equal(rubricPrint(r));
        same(removeCriterion(insertCriterion(r, row), row));
        same(removeCriterion(duplicateCriterion(r, row), row + 1));
        same(moveCriterion(moveCriterion(r, row, to), to, row));
        const square = { ...r, criteria: r.criteria.map((c) => ({ ...c, levels: c.levels.slice(0, 1) })) };
        expect(rubricPrint(removeLevel(insertLevel(square, 1), 1))).to.equal(rubricPrint(square));
        for (const now of [
          insertCriterion(r, row),
          duplicateCriterion(r, row),
          insertLevel(r, n),
          duplicateLevel(r, n),
          setLevel(r, { row, col: 8 }, { title: 'x' }),
        ])
          expect(new Set(ids(now)).size).to.equal(ids(now).length);
      }),
    );
  });

  it('a duplicate counts once more, and moving changes no total (property)', () => {
    fc.assert(
      fc.property(sheet, at, at, (r, n, m) => {
        const row = n % r.criteria.length;
        const alone = rubricPoints({ ...r, criteria: [r.criteria[row]!] })!;
        expect(rubricPoints(duplicateCriterion(r, row))).to.equal(rubricPoints(r)! + alone);
        expect(rubricPoints(moveLevel(moveCriterion(r, row, m % r.criteria.length), 1, 2))).to.equal(
          rubricPoints(r),
        );
      }),
    );
  });

  it('a block that is copied as text and pasted elsewhere says the same there (property)', () => {
    fc.assert(
      fc.property(sheet, (r) => {
        const texts = textsOf(r, whole(r));
        const pasted = pasteTexts(clearBlock(r, whole(r)), { row: 0, col: 0 }, texts);
        expect(
          textsOf(pasted, {
            from: { row: 0, col: 0 },
            to: { row: texts.length - 1, col: texts[0]!.length - 1 },
          }),
        ).to.deep.equal(texts);
        expect(
          textsOf(clearBlock(r, whole(r)), whole(r))
            .flat()
            .join(''),
        ).to.equal('');
      }),
    );
  });

  const cells: [text: string, says: object][] = [
    ['Good (3)', { title: 'Good', points: { low: 3, high: 3 } }],
    [
      'Good (3 to 4 points)\nEvery leg is there.',
      { title: 'Good', points: { low: 3, high: 4 }, description: 'Every leg is there.' },
    ],
    ['4,5', { points: { low: 4.5, high: 4.5 } }],
    ['Not yet', { title: 'Not yet' }],
    [
      'Heights at both ports and the stream of each hour',
      { description: 'Heights at both ports and the stream of each hour' },
    ],
    ['Zwei Zeilen\nbeschreiben es', { description: 'Zwei Zeilen\nbeschreiben es' }],
  ];
  for (const [text, says] of cells)
    it(`a cell “${text.replace('\n', ' / ')}” is read`, () => expect(levelOfText(text)).to.deep.equal(says));

  it('writes a level as it is read', () => {
    const said = { title: 'Good', points: { low: 3, high: 4 }, description: 'Every leg.' };
    expect(levelText(said)).to.equal('Good (3 to 4)\nEvery leg.');
    expect(setCriterion(newRubric('r', 'R'), 0, { title: 'Fixes' }).criteria[0]!.title).to.equal('Fixes');
  });
});
