import { expect } from 'chai';
import fc from 'fast-check';
import { LONGEST_FORMULA, MOST_FORMULAS, pieces } from '../../core/src/content/tex.ts';

const formulas = (text: string): string[] =>
  pieces(text)
    .filter((p) => p.formula)
    .map((p) => p.text);

describe('formulas between delimiters', () => {
  const cases: [text: string, formulas: string[]][] = [
    ['\\(a^2\\)', ['a^2']],
    ['before \\(a\\) between \\[b\\] after', ['a', 'b']],
    ['$$x$$ and $5 and $$y$$', ['x', 'y']],
    ['a price of $5, then $6', []],
    ['\\(never closed', []],
    ['\\(never closed, but \\[closed\\]', ['closed']],
    ['\\( \\)', []],
    ['$$$$', []],
    [`\\(${'x'.repeat(LONGEST_FORMULA + 1)}\\) \\(y\\)`, ['y']],
  ];
  for (const [text, wanted] of cases)
    it(text.slice(0, 40), () => expect(formulas(text)).to.deep.equal(wanted));

  it('nothing of the text is lost, whatever it holds', () => {
    const bits = fc.constantFrom('\\(', '\\)', '\\[', '\\]', '$$', '$', '\\', 'x', ' ', '潮', '\n');
    fc.assert(
      fc.property(fc.array(bits), (list) => {
        const text = list.join('');
        expect(
          pieces(text)
            .map((p) => p.typed)
            .join(''),
        ).to.equal(text);
      }),
    );
  });

  it('time grows with the length, not with its square', () => {
    const work = (n: number): number => {
      const text = '\\( '.repeat(n);
      const from = performance.now();
      for (let k = 0; k < 5; k++) pieces(text);
      return performance.now() - from;
    };
    work(30_000);
    // Ten times the text: a square would take a hundred times as long.
    expect(work(300_000) / Math.max(1, work(30_000))).to.be.lessThan(50);
  });

  it('more formulas than a person reads stay as they were typed', () => {
    expect(formulas('\\(x\\) '.repeat(MOST_FORMULAS + 10))).to.have.length(MOST_FORMULAS);
  });
});
