import { expect } from 'chai';
import { compared, facets, items12, material } from './support.ts';

const img = (src: string, alt = 'A buoy'): string => `<img src="${src}" alt="${alt}">`;
const choices = (a: string, b: string, right = 'A'): string =>
  `<presentation>${material('<p>Which?</p>')}<response_lid ident="R"><render_choice shuffle="No"><response_label ident="A">${material(a)}</response_label><response_label ident="B">${material(b)}</response_label></render_choice></response_lid></presentation><resprocessing><outcomes><decvar maxvalue="1"/></outcomes><respcondition><conditionvar><varequal respident="R">${right}</varequal></conditionvar><setvar action="Set">1</setvar></respcondition></resprocessing>`;
const stem = (html: string): string =>
  `<presentation>${material(html)}<response_str ident="R"><render_fib rows="5"/></response_str></presentation>`;

describe('a picture', () => {
  it('is its bytes and its words in a choice, not its name', async () => {
    const from = {
      'q.xml': items12(choices(img('one.png'), img('two.png'))),
      'one.png': 'red',
      'two.png': 'green',
    };
    const renamed = {
      'q.xml': items12(choices(img('a/x.png'), img('a/y.png'))),
      'a/x.png': 'red',
      'a/y.png': 'green',
    };
    expect(await facets(from, renamed)).to.deep.equal([]);
    const swapped = { ...renamed, 'a/x.png': 'green', 'a/y.png': 'red' };
    const found = await facets(from, swapped);
    expect(found).to.include('key');
  });

  it('moves the key along with it', async () => {
    const from = { 'q.xml': items12(choices(img('1.png'), img('2.png'))), '1.png': 'red', '2.png': 'green' };
    const turned = {
      'q.xml': items12(choices(img('2.png'), img('1.png'), 'B')),
      '1.png': 'red',
      '2.png': 'green',
    };
    expect(await facets(from, turned)).to.deep.equal(['choice-order']);
  });

  it('under the same name with other bytes is a file that is altered, not missing and extra', async () => {
    const from = { 'q.xml': items12(stem(img('buoy.png'))), 'buoy.png': 'red' };
    const report = await compared(from, { ...from, 'buoy.png': 'green' });
    expect(report.verdict).to.equal('altered');
    expect(report.counts).to.deep.equal({ intact: 0, altered: 1, missing: 0, extra: 0 });
    expect(report.missingFiles).to.deep.equal([]);
    expect(report.pairs[0]!.differences).to.deep.equal([
      {
        facet: 'files',
        from: { files: [{ path: 'buoy.png', present: true }] },
        to: { files: [{ path: 'buoy.png', present: true, changed: true }] },
        example: null,
      },
    ]);
  });

  it('of a choice with other bytes is a difference of files', async () => {
    const from = { 'q.xml': items12(choices(img('1.png'), 'No')), '1.png': 'red' };
    expect(await facets(from, { ...from, '1.png': 'green' })).to.deep.equal(['files']);
  });

  it('that changed places with another, in the text, is told', async () => {
    const files = { '1.png': 'red', '2.png': 'green' };
    const from = { 'q.xml': items12(stem(`${img('1.png')} then ${img('2.png')}`)), ...files };
    expect(
      await facets(from, { 'q.xml': items12(stem(`${img('2.png')} then ${img('1.png')}`)), ...files }),
    ).to.deep.equal(['files']);
  });

  it('with other words for those who do not see it is told', async () => {
    const files = { '1.png': 'red' };
    const from = { 'q.xml': items12(stem(img('1.png'))), ...files };
    expect(await facets(from, { 'q.xml': items12(stem(img('1.png', 'A bell'))), ...files })).to.deep.equal([
      'files',
    ]);
  });

  it('or another file that no item shows is altered where its name is there with other bytes', async () => {
    const from = { 'q.xml': items12(stem('<p>x</p>')), 'table.pdf': 'one' };
    const report = await compared(from, { ...from, 'table.pdf': 'two' });
    expect([report.verdict, report.missingFiles, report.alteredFiles]).to.deep.equal([
      'altered',
      [],
      ['table.pdf'],
    ]);
    const gone = await compared(from, { 'q.xml': from['q.xml'] });
    expect([gone.verdict, gone.missingFiles]).to.deep.equal(['incomplete', ['table.pdf']]);
  });
});
