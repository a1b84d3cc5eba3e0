import { expect } from 'chai';
import fc from 'fast-check';
import { applyEdits, make } from '@alforja/core';
import { plainNames, plainPath } from '@alforja/core/edit';

const PLAIN = /^[A-Za-z0-9._\-/]+$/u;

describe('plain names of files', () => {
  it('leave out blanks and accents, and keep the rest', () => {
    expect(plainPath('img/Puerto de Málaga (2).png')).to.equal('img/Puerto-de-Malaga-2.png');
    expect(plainPath('Größe.svg')).to.equal('Grosse.svg');
    expect(plainPath('灯台.png')).to.equal('u706fu53f0.png');
    expect(plainPath('حبل 1.png')).to.equal('u62du628u644-1.png');
    expect(plainPath('***/…')).to.equal('file/file');
  });

  it('ask nothing of names that are plain', () => {
    expect(plainNames(['a.png', 'b/c_1-2.svg'])).to.deep.equal([]);
  });

  it('never give one name twice', () => {
    expect(plainNames(['a b.png', 'a-b.png', 'á b.png']).map((e) => e.to)).to.deep.equal([
      'a-b-2.png',
      'a-b-3.png',
    ]);
  });

  it('are plain, apart, and taken by the layer, whatever the names', () =>
    fc.assert(
      fc.property(
        fc.uniqueArray(fc.string({ minLength: 1, unit: 'grapheme' }), { maxLength: 12 }),
        (paths) => {
          const edits = plainNames(paths);
          const holding = make.holding({
            files: paths.map((path) => ({ path, bytes: 1, sha256: path })),
          });
          const done = applyEdits(holding, edits);
          expect(done.refused).to.deep.equal([]);
          const now = done.holding.files.map((f) => f.path);
          expect(new Set(now).size).to.equal(paths.length);
          for (const e of edits) expect(e.to).to.match(PLAIN);
          // What each file is stays with it.
          expect(done.holding.files.map((f) => f.sha256)).to.deep.equal(paths);
          expect(plainNames(now)).to.deep.equal([]);
        },
      ),
    ));
});
