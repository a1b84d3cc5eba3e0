import { expect } from 'chai';
import fc from 'fast-check';
import {
  cut,
  cutShort,
  isActive,
  isHarmless,
  shownName,
  writeHolding,
  type ContentNode,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { harmlessXml } from '../../../core/src/content/address.ts';
import { isModest, isModestAttribute } from '../../../core/src/content/modest.ts';
import { walk } from '../../../core/src/model/visit.ts';
import { assessmentXml, PLAIN } from '../../../demo/qti12.ts';
import { read, readZip } from '../../support/read.ts';
import { unzipSync } from 'fflate';

const reading = (stem: string) =>
  read(
    assessmentXml(
      {
        id: 'q',
        title: 'Q',
        items: [
          { kind: 'single', id: 'i', points: 1, stem, choices: [{ text: 'L', right: true }, { text: 'R' }] },
        ],
      },
      PLAIN,
    ),
  );

function addresses(nodes: readonly ContentNode[]): string[] {
  const found: string[] = [];
  walk(nodes, (node) => {
    if (node.kind !== 'element') return;
    for (const key of ['href', 'src', 'cite', 'poster', 'longdesc']) {
      const value = node.attrs[key];
      if (value !== undefined) found.push(value);
    }
  });
  return found;
}

/** Ways to write a scheme so that it does not look like one. */
const encoded = fc.constantFrom<(text: string) => string>(
  (t) => t,
  (t) => t.toUpperCase(),
  (t) => [...t].map((c) => `%${c.charCodeAt(0).toString(16)}`).join(''),
  (t) => t.replace(/./u, (c) => `%25${c.charCodeAt(0).toString(16)}`),
  (t) => t.replace('s', '\ts').replace('c', '\nc'),
  (t) => `\u0001${t}`,
  (t) => t.replace(':', '%3A'),
  (t) => t.replace('a', '\u200Ba'),
);
const before = fc.constantFrom(
  '',
  '$IMS-CC-FILEBASE$',
  '%24IMS-CC-FILEBASE%24/',
  '$IMS-CC-FILEBASE$/../',
  ' ',
);
const scheme = fc.constantFrom(
  'javascript:alert(1)',
  'vbscript:x',
  'data:text/html,<b>',
  'file:///etc/passwd',
);

describe('addresses in content', () => {
  it('never run anything, however they are written, when read and when written', async () => {
    await fc.assert(
      fc.asyncProperty(encoded, before, scheme, async (encode, front, target) => {
        const address = front + encode(target);
        const escaped = address.replace(/&/gu, '&amp;').replace(/"/gu, '&quot;').replace(/</gu, '&lt;');
        const stem = `<p>Which? <a href="${escaped}">a</a><img src="${escaped}" alt=""/></p>`;
        const holding = await reading(stem);
        const [item] = holding.items;
        if (!item) return;
        for (const found of addresses(item.body))
          expect(isActive(found), `${address} -> ${found}`).to.equal(false);
        for (const format of ['qti2.1', 'cc1.3', 'qti3.0'] as const)
          for (const bytes of writeHolding(holding, format, () => null, nodePlatform).packages)
            for (const [path, content] of Object.entries(unzipSync(bytes))) {
              const text = new TextDecoder().decode(content);
              for (const [, value = ''] of text.matchAll(/(?:href|src|data)\s*=\s*(?:"|&quot;)([^"&]*)/gu))
                expect(isActive(value), `${format} ${path}: ${value}`).to.equal(false);
            }
      }),
      { numRuns: 60 },
    );
  });

  it('of what is written back as it came lead nowhere where they would run something', () => {
    expect(harmlessXml('<x><a href="java&#115;cript:alert(1)" onclick=\'y\' title="t">a</a></x>')).to.equal(
      '<x><a href="#" title="t">a</a></x>',
    );
    const plain = '<x href="a.png" src=\'b c.png\' y="5 &lt; 6" ontology-of="z"/>';
    expect(harmlessXml(plain)).to.equal(plain);
  });

  it('that are harmless stay as they are', async () => {
    for (const address of [
      'https://tides.example/a?b=c:d',
      'mailto:a@b.example',
      'tel:+1',
      'HTTP://x.example/',
    ])
      expect(isHarmless(address) && !isActive(address), address).to.equal(true);
    for (const address of ['a.png', 'a/b.png', '#top', 'x?y=javascript:z', 'Fig: 1.png', '//x.example/a'])
      expect(isActive(address), address).to.equal(false);
    const { items } = await readZip({
      'q.xml': assessmentXml(
        {
          id: 'q',
          title: 'Q',
          items: [
            {
              kind: 'single',
              id: 'i',
              points: 1,
              stem: '<p><img src="pic/Fig 1.png" alt="x"><a href="https://a.example/">b</a></p>',
              choices: [{ text: 'L', right: true }, { text: 'R' }],
            },
          ],
        },
        PLAIN,
      ),
      'pic/Fig 1.png': 'x',
    });
    expect(addresses(items[0]!.body)).to.deep.equal(['pic/Fig 1.png', 'https://a.example/']);
  });
});

describe('lengths in content', () => {
  it('that lay something over the page go; those of ordinary texts stay', () => {
    for (const [property, value] of [
      ['margin-left', '-9999px'],
      ['margin', '0 -1px'],
      ['width', '100000px'],
      ['height', '9e9px'],
      ['font-size', '5000px'],
      ['text-indent', '-9999px'],
      ['padding', '999em'],
      ['line-height', '900'],
    ] as const)
      expect(isModest(property, value), `${property}: ${value}`).to.equal(false);
    for (const [property, value] of [
      ['margin-left', '40px'],
      ['margin', '0 auto'],
      ['width', '100%'],
      ['width', '640px'],
      ['font-size', '120%'],
      ['font-size', '18px'],
      ['text-indent', '-2em'],
      ['border', '1px solid #123456'],
      ['color', '#998877'],
      ['font-weight', '700'],
      ['line-height', '1.5'],
    ] as const)
      expect(isModest(property, value), `${property}: ${value}`).to.equal(true);
    expect(isModestAttribute('width', '-99999em')).to.equal(false);
    expect(isModestAttribute('lspace', '-0.1667em')).to.equal(true);
    expect(isModestAttribute('alttext', 'x^{99999999}')).to.equal(true);
  });
});

describe('names and cut texts', () => {
  it('show what is hidden in them', () => {
    expect(shownName('exam\u202Egpj.exe')).to.equal('exam⟨U+202E⟩gpj.exe');
    expect(shownName('a\u0000b\r\nc')).to.equal('a⟨U+0000⟩b⟨U+000D⟩⟨U+000A⟩c');
    expect(shownName('Übung 1 – ملاحة.zip')).to.equal('Übung 1 – ملاحة.zip');
  });
  it('never end in half a character', () => {
    fc.assert(
      fc.property(
        fc.string({ unit: 'grapheme', maxLength: 30 }),
        fc.integer({ min: 1, max: 40 }),
        (text, most) => {
          const short = cut(text, most);
          expect(text.startsWith(short)).to.equal(true);
          expect(short.length).to.be.at.most(most);
          expect(short.length).to.be.at.least(Math.min(text.length, most) - 1);
          expect(short.isWellFormed()).to.equal(text.slice(0, short.length).isWellFormed());
          expect(cutShort(text, most)).to.equal(text.length <= most ? text : `${short}…`);
        },
      ),
    );
    expect(cut('a😀', 2)).to.equal('a');
  });
});
