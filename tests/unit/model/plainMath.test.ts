import { expect } from 'chai';
import { plain, stemText } from '@alforja/core';
import { item21 } from '../edit/support.ts';

describe('a text with a formula', () => {
  it('is read as it is shown, without what the formula was typed as', async () => {
    const { items } = await item21(
      '<itemBody><p>Speed is <math xmlns="http://www.w3.org/1998/Math/MathML"><semantics><mfrac><mi>D</mi>' +
        '<mi>T</mi></mfrac><annotation encoding="application/x-tex">\\frac{D}{T}</annotation></semantics>' +
        '</math> here.</p></itemBody>',
    );
    expect(stemText(items[0]!)).to.equal('Speed is DT here.');
    expect(plain(items[0]!.body)).to.not.include('frac');
    // It is kept all the same, to be opened again.
    expect(JSON.stringify(items[0]!.body)).to.include('\\\\frac{D}{T}');
  });
});
