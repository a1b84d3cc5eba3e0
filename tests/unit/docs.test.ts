import { readFileSync } from 'node:fs';
import { expect } from 'chai';
import { checksDocument, formatsDocument } from '../../scripts/docs.ts';

const read = (path: string): string => readFileSync(new URL(`../../docs/${path}`, import.meta.url), 'utf8');

describe('the documentation', () => {
  it('is what npm run docs makes of the code', () => {
    expect(read('checks.md')).to.equal(checksDocument());
    expect(read('formats.md')).to.equal(formatsDocument(read('formats.md')));
  });
});
