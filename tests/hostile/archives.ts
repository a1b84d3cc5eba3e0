import { rawZip, type RawEntry } from '../support/rawZip.ts';
import { zip } from '../support/read.ts';
import { assessmentXml, PLAIN } from '../../demo/qti12.ts';
import { many, stored, utf8, type Hostile } from './hostile.ts';

/** Archives and mark-up that come to more than they look like. */

const good = assessmentXml(
  {
    id: 'q',
    title: 'Q',
    items: [
      {
        kind: 'single',
        id: 'good',
        points: 1,
        stem: '<p>Port?</p>',
        choices: [{ text: 'Left', right: true }, { text: 'Right' }],
      },
    ],
  },
  PLAIN,
);
const manifest = (inside: string): string =>
  `<manifest identifier="m" xmlns="http://www.imsglobal.org/xsd/imscp_v1p1"><metadata><schema>IMS Content</schema></metadata><organizations/><resources>${inside}</resources></manifest>`;
const nothing = (size: number): Uint8Array => new Uint8Array(size);
const qti = (inside: string): Uint8Array => utf8(`<questestinterop>${inside}</questestinterop>`);
const refused = 'refused' as const;
const bombs = (count: number, size: number): RawEntry[] =>
  Array.from({ length: count }, (_, at) => ({ name: `f${at}.xml`, content: nothing(size) }));

export const ARCHIVES: readonly Hostile[] = [
  {
    name: 'a gigabyte of nothing',
    file: 'bomb.zip',
    then: refused,
    make: () => rawZip([{ name: 'a.xml', content: nothing(256 << 20) }]),
  },
  {
    name: 'two thousand entries of a megabyte less a byte',
    file: 'many-small-bombs.zip',
    then: refused,
    make: () => rawZip(bombs(400, (1 << 20) - 1)),
  },
  {
    name: 'packages in a package, each a small bomb',
    file: 'inner-bombs.zip',
    then: { items: 1 },
    make: () => {
      const inner = zip({
        'imsmanifest.xml': manifest(''),
        ...Object.fromEntries(Array.from({ length: 15 }, (_, n) => [`f${n}`, nothing(1_000_000)])),
      });
      return zip({
        'good.xml': good,
        ...Object.fromEntries(Array.from({ length: 200 }, (_, n) => [`inner${n}.zip`, inner])),
      });
    },
  },
  {
    name: 'sixty thousand entries',
    file: 'entries.zip',
    then: refused,
    make: () => zip(Object.fromEntries(Array.from({ length: 60_000 }, (_, n) => [`f${n}.xml`, '']))),
  },
  {
    name: 'twenty thousand files that are not there',
    file: 'missing.zip',
    then: { items: 1 },
    make: () =>
      zip({
        'imsmanifest.xml': manifest(
          many(
            20_000,
            (n) =>
              `<resource identifier="r${n}" type="webcontent" href="no/${n}.xml"><file href="no/${n}.xml"/><dependency identifierref="d${n}"/></resource>`,
          ),
        ),
        'good.xml': good,
        ...Object.fromEntries(Array.from({ length: 10_000 }, (_, n) => [`yes/${n}.txt`, 'x'])),
      }),
  },
  {
    name: 'a folder tree a hundred thousand deep',
    file: 'deep-organization.zip',
    then: { items: 1 },
    make: () =>
      stored({
        'imsmanifest.xml': `<manifest identifier="m"><organizations><organization>${'<item identifier="i">'.repeat(100_000)}${'</item>'.repeat(100_000)}</organization></organizations><resources/></manifest>`,
        'good.xml': good,
      }),
  },
  { name: 'elements a hundred thousand deep', file: 'deep.xml', make: () => qti('<a>'.repeat(100_000)) },
  {
    name: 'two hundred thousand attributes',
    file: 'attributes.xml',
    make: () => qti(`<item ident="i" ${many(200_000, (n) => `a${n}="1" `)}/>`),
  },
  { name: 'a million empty elements', file: 'elements.xml', make: () => qti(many(1_000_000, () => '<a/>')) },
  {
    name: 'entities that multiply',
    file: 'laughs.xml',
    make: () =>
      utf8(
        `<!DOCTYPE q [<!ENTITY a "ha">${many(30, (n) => `<!ENTITY e${n} "${many(10, () => (n === 0 ? '&a;' : `&e${n - 1};`))}">`)}]><questestinterop>&e29;</questestinterop>`,
      ),
  },
  {
    name: 'a document type of quotes',
    file: 'doctype.xml',
    make: () => utf8(`<!DOCTYPE q [${'"'.repeat(500_001)}]><questestinterop/>`),
  },
  {
    name: 'a comment that does not end',
    file: 'comment.xml',
    make: () => utf8(`<!--${'-'.repeat(20_000_000)}`),
  },
  {
    name: 'comments in front of a page',
    file: 'comments.html',
    make: () => utf8(`${'<!---->'.repeat(60)}<x`),
  },
  {
    name: 'declarations in front of nothing',
    file: 'declarations.html',
    make: () => utf8(`<?xml ${'?><!-- -->'.repeat(5000)} <zzz`),
  },
  {
    name: 'an end record and nothing else',
    file: 'end.zip',
    then: refused,
    make: () => Buffer.concat([Buffer.from([0x50, 0x4b, 5, 6]), Buffer.alloc(18)]),
  },
  {
    name: 'sixty thousand end records',
    file: 'ends.zip',
    make: () => Buffer.concat(Array.from({ length: 60_000 }, () => Buffer.from([0x50, 0x4b, 5, 6, 0, 0]))),
  },
  {
    name: 'twenty thousand questions that say the same',
    slow: true,
    file: 'same.xml',
    make: () =>
      qti(
        many(
          20_000,
          (n) =>
            `<item ident="i${n}" title="t"><presentation><material><mattext>Which side of the boat is port when looking forward along the keel of it?</mattext></material><response_str ident="r"><render_fib/></response_str></presentation></item>`,
        ),
      ),
  },
  {
    name: 'five thousand questions that differ in a word',
    file: 'near.xml',
    make: () =>
      qti(
        many(
          5000,
          (n) =>
            `<item ident="i${n}" title="t"><presentation><material><mattext>Which side of the boat number ${n} is port when looking forward along the keel of it word${n % 97}?</mattext></material><response_str ident="r"><render_fib/></response_str></presentation></item>`,
        ),
      ),
  },
  {
    name: 'a thousand fields to an item, each of its own',
    slow: true,
    file: 'fields.xml',
    make: () =>
      qti(
        many(
          200,
          (n) =>
            `<item ident="i${n}"><itemmetadata><qtimetadata>${many(1000, (k) => `<qtimetadatafield><fieldlabel>f${k}</fieldlabel><fieldentry>${n * k}</fieldentry></qtimetadatafield>`)}</qtimetadata></itemmetadata></item>`,
        ),
      ),
  },
  {
    name: 'sections within sections',
    file: 'sections.xml',
    make: () =>
      qti(
        `<assessment ident="a">${'<section ident="s">'.repeat(150)}${many(3000, (n) => `<itemref linkrefid="x${n}"/>`)}${'</section>'.repeat(150)}</assessment>`,
      ),
  },
  {
    name: 'conditions of QTI 1.2, fifty thousand',
    file: 'conditions.xml',
    then: { items: 1 },
    make: () =>
      qti(
        `<item ident="i"><presentation><response_lid ident="r" rcardinality="Multiple"><render_choice>${many(2000, (n) => `<response_label ident="A${n}"><material><mattext>a${n}</mattext></material></response_label>`)}</render_choice></response_lid></presentation><resprocessing><outcomes><decvar varname="SCORE"/></outcomes>${many(20_000, (n) => `<respcondition continue="Yes"><conditionvar><not><varequal respident="r">A${n % 2000}</varequal></not></conditionvar><setvar action="Add">1</setvar></respcondition>`)}</resprocessing></item>`,
      ),
  },
  {
    name: 'a filter nested sixty deep',
    file: 'filter.xml',
    make: () =>
      qti(
        `<assessment ident="a"><section ident="s"><selection_ordering><selection><selection_number>5</selection_number>${'<and_selection>'.repeat(60)}<selection_metadata mdname="x" mdoperator="EQ">y</selection_metadata>${'</and_selection>'.repeat(60)}</selection></selection_ordering>${many(2000, (n) => `<item ident="i${n}"/>`)}</section></assessment>`,
      ),
  },
];
