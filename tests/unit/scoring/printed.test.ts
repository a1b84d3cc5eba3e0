import { expect } from 'chai';
import { printedText } from '@alforja/core';
import { held } from '../../../core/src/scoring/value.ts';

const shown = (n: number, format: string): string => printedText(held('single', 'float', [n]), { format });

describe('a printed variable', () => {
  // What C's printf gives for the same format (common practice; QTI 2.1, "Number Formatting Rules").
  for (const [format, n, expected] of [
    ['%.2f', 3.14159, '3.14'],
    ['%f', 0.5, '0.500000'],
    ['%i', 41.6, '42'],
    ['%d', -7, '-7'],
    ['%05d', 42, '00042'],
    ['%-6d', 42, '42    '],
    ['%+d', 42, '+42'],
    ['%x', 255, 'ff'],
    ['%X', 255, 'FF'],
    ['%o', 8, '10'],
    ['%.2e', 12345, '1.23e+04'],
    ['%.3g', 1234567, '1.23e+06'],
    ['%g', 0.0001, '0.0001'],
    ['%g', 100000, '100000'],
    ['%.4r', 2, '2.000'],
    ['.1f', 2.25, (2.25).toFixed(1)],
  ] as const)
    it(`${format} of ${n} reads ${expected}`, () => expect(shown(n, format)).to.equal(expected));

  it('keeps a number as it is where the format cannot be understood', () => {
    expect(shown(0.1 + 0.2, '%q')).to.equal('0.3');
    expect(shown(1.5, '')).to.equal('1.5');
    expect(shown(3, `%${'9'.repeat(50)}d`)).to.have.length(200);
  });

  it('of a container or a record shows one part, or all', () => {
    const three = held('ordered', 'integer', [4, 5, 6]);
    expect(printedText(three)).to.equal('4; 5; 6');
    expect(printedText(three, { delimiter: ' / ' })).to.equal('4 / 5 / 6');
    expect(printedText(three, { index: '2' })).to.equal('5');
    const record = { cardinality: 'record', baseType: null, values: [1, 'a'], fields: ['x', 'y'] } as const;
    expect(printedText(record)).to.equal('x=1; y=a');
    expect(printedText(record, { field: 'y' })).to.equal('a');
    expect(printedText(null)).to.equal('');
    expect(printedText(held('single', 'integer', [255]), { base: '16' })).to.equal('ff');
  });
});
