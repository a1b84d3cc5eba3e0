import { expect } from 'chai';
import { unzipSync, strFromU8 } from 'fflate';
import { XmlDocument } from 'libxml2-wasm';
import mammoth from 'mammoth';
import {
  fileReader,
  INTERACTION_KINDS,
  interactionsOf,
  make,
  versionsOf,
  withEmbedded,
  type Holding,
  type Item,
  type Quiz,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import {
  keyDocx,
  keyHtml,
  keyOf,
  PAPER_STYLE,
  paperDocx,
  paperHtml,
  paperOf,
  type Paper,
  type PaperKey,
} from '@alforja/core/paper';
import { demoFiles } from '../../../demo/packages.ts';
import { read } from '../../support/read.ts';

type ReadFile = (path: string) => Uint8Array | null;
const nothing: ReadFile = () => null;

async function demo(name: string): Promise<{ holding: Holding; files: ReadFile }> {
  const { bytes } = demoFiles().find((f) => f.name === name)!;
  const holding = await read(bytes, name);
  return { holding, files: withEmbedded(holding, await fileReader(name, bytes, nodePlatform)) };
}
const papers = (holding: Holding): { paper: Paper; key: PaperKey; codes: string[] } => {
  const quiz = holding.quizzes[0]!;
  const [version] = versionsOf(holding, quiz, 1, 'x').versions;
  const { made, findings } = paperOf(version!, quiz.title);
  return {
    paper: made,
    key: keyOf(version!, quiz.title, holding.rubrics),
    codes: findings.map((f) => f.code),
  };
};
const quizOf = (...items: Item[]): Holding => {
  const quiz: Quiz = {
    id: 'q',
    title: 'Quiz',
    settings: make.NO_SETTINGS,
    sections: [
      {
        id: 's',
        title: '',
        shuffle: false,
        items: items.map((i) => ({ item: i.id, weight: 1 })),
        draw: null,
        instructions: null,
      },
    ],
    test: null,
    metadata: [],
    origin: null,
  };
  return make.holding({ items, quizzes: [quiz] });
};
const said = (html: string): string =>
  html
    .replace(/<style>.*?<\/style>/su, '')
    .replace(/<[^>]+>/gu, ' ')
    .replace(/\s+/gu, ' ');
/** What another program reads in a document. */
const inDocument = async (bytes: Uint8Array): Promise<string> =>
  (await mammoth.extractRawText({ buffer: Buffer.from(bytes) })).value.replace(/\s+/gu, ' ');

describe('a paper', () => {
  it('asks every kind that there is, with room for its answer', async () => {
    const { holding, files } = await demo('every-kind.zip');
    const { paper, codes } = papers(holding);
    const asked = new Set(holding.items.flatMap((i) => interactionsOf(i).map((x) => x.kind)));
    expect(INTERACTION_KINDS.filter((k) => !asked.has(k) && k !== 'custom')).to.deep.equal([]);
    const questions = paper.sections.flatMap((s) => s.questions);
    expect(questions.map((q) => q.number)).to.deep.equal(holding.items.map((_, at) => at + 1));
    expect(questions.every((q) => q.blocks.length > 0)).to.equal(true);
    expect(codes).to.deep.equal(['loss-kind', 'loss-kind']);
    const html = said(paperHtml(paper, PAPER_STYLE, files));
    const document = await inDocument(await paperDocx(paper, PAPER_STYLE, files));
    for (const words of [
      'Choose three marks',
      'Number them in the right order',
      'isogonal',
      'Join the places',
      '6 points',
    ])
      for (const [form, text] of [
        ['page', html],
        ['document', document],
      ] as const)
        expect(text, form).to.include(words);
  });

  it('is a page in which nothing is fetched and nothing runs, whatever stands in it', () => {
    const evil = '<script>alert(1)</script>" onload="x';
    const item = make.item({
      id: 'i',
      title: evil,
      points: 1,
      body: [
        make.element('p', [make.text(evil)]),
        make.element('p', [], {}),
        make.element('img', [], { src: 'https://elsewhere.example/x.png', alt: evil }),
        make.element('a', [make.text('here')], { href: 'javascript:alert(1)' }),
      ],
    });
    const holding = { ...quizOf(item), title: evil };
    const { paper, key } = papers({
      ...holding,
      quizzes: holding.quizzes.map((q) => ({ ...q, title: evil })),
    });
    for (const page of [paperHtml(paper, PAPER_STYLE, nothing), keyHtml(key, PAPER_STYLE, nothing)]) {
      const tags = (page.match(/<[^>]+>/gu) ?? []).join('\n');
      expect(tags).to.not.match(/<script|<a |javascript:|\son\w+="/u);
      expect(page.match(/(?:src|href)="[^"]*"/gu) ?? []).to.deep.equal([]);
      expect(page).to.include("default-src 'none'");
    }
  });

  it('shows pictures of the package, and the words for those that are not there', async () => {
    const { holding, files } = await demo('pilotage-week5.imscc');
    const { paper } = papers(holding);
    expect(paperHtml(paper, PAPER_STYLE, files)).to.include('src="data:image/png;base64,');
    const entries = unzipSync(await paperDocx(paper, PAPER_STYLE, files));
    expect(Object.keys(entries).filter((p) => /media\/.*\.png$/u.test(p))).to.have.length(1);
    expect(said(paperHtml(paper, PAPER_STYLE, nothing))).to.include('[Chart of a harbour mouth');
    expect(await inDocument(await paperDocx(paper, PAPER_STYLE, nothing))).to.include(
      '[Chart of a harbour mouth',
    );
  });

  it('sets mathematics as mathematics, of MathML and of TeX', async () => {
    const math = make.item({
      id: 'm',
      points: 1,
      body: [
        {
          kind: 'element',
          name: 'p',
          attrs: {},
          children: [
            make.text('Given \\(\\frac{a}{b} < 1\\) and '),
            {
              kind: 'math',
              attrs: {},
              children: [
                make.element('msqrt', [make.element('mi', [make.text('x & y')])]),
                make.element('mo', [make.text('<')]),
              ],
            },
          ],
        },
      ],
    });
    const { paper } = papers(quizOf(math));
    const page = paperHtml(paper, PAPER_STYLE, nothing);
    expect(page.match(/<math/gu)).to.have.length(2);
    expect(page).to.include('<mfrac>').and.to.include('<msqrt>');
    const xml = strFromU8(unzipSync(await paperDocx(paper, PAPER_STYLE, nothing))['word/document.xml']!);
    expect(xml.match(/<m:oMath /gu)).to.have.length(2);
    expect(xml)
      .to.include('<m:f>')
      .and.to.include('<m:rad>')
      .and.to.include('x&amp;y')
      .and.to.include('&lt;');
    XmlDocument.fromString(xml).dispose();
  });

  it('is the same bytes each time, and well-formed XML in every part of it', async () => {
    const { holding, files } = await demo('every-kind.zip');
    const { paper, key } = papers(holding);
    const made = async (): Promise<Uint8Array[]> => [
      await paperDocx(paper, PAPER_STYLE, files),
      await keyDocx(key, PAPER_STYLE, files),
    ];
    const [first, second] = [await made(), await made()];
    expect(first.map((b) => Buffer.from(b).toString('base64'))).to.deep.equal(
      second.map((b) => Buffer.from(b).toString('base64')),
    );
    for (const bytes of first)
      for (const [path, content] of Object.entries(unzipSync(bytes)))
        if (/\.(?:xml|rels)$/u.test(path)) XmlDocument.fromString(strFromU8(content)).dispose();
  });

  it('in large print, in plain letters, on the other size of sheet', async () => {
    const { paper } = papers(
      quizOf(
        make.item({
          id: 'i',
          points: 1,
          body: [make.element('p', [make.element('em', [make.text('Why?')])])],
        }),
      ),
    );
    const style = { ...PAPER_STYLE, size: 'Letter', large: true, plain: true } as const;
    const page = paperHtml(paper, style, nothing);
    expect(page).to.include('@page { size: Letter;').and.to.include('class="large plain"');
    const entries = unzipSync(await paperDocx(paper, style, nothing));
    const xml = strFromU8(entries['word/document.xml']!);
    // 8.5 by 11 inches in twentieths of a point; no slanted letters.
    expect(xml).to.match(/<w:pgSz w:w="122(?:40|41)" w:h="158(?:40|41)"/u);
    expect(xml).to.not.include('<w:i/>');
    expect(strFromU8(entries['word/styles.xml']!)).to.include('w:val="36"').and.to.include('Verdana');
  });

  it('is read from right to left where its text is', async () => {
    const { paper } = papers(
      quizOf(make.item({ id: 'i', points: 1, body: [make.element('p', [make.text('ما هو الاتجاه؟')])] })),
    );
    expect(paperHtml(paper, PAPER_STYLE, nothing)).to.include('dir="auto"');
    const xml = strFromU8(unzipSync(await paperDocx(paper, PAPER_STYLE, nothing))['word/document.xml']!);
    expect(xml).to.include('<w:bidi/>').and.to.include('<w:rtl/>');
  });

  it('keeps tables with spans, lists, listings and headings', async () => {
    const cell = (text: string, attrs: Record<string, string> = {}) =>
      make.element('td', [make.text(text)], attrs);
    const body = [
      make.element('h2', [make.text('Heights')]),
      make.element('table', [
        make.element('tr', [cell('wide', { colspan: '2' })]),
        make.element('tr', [cell('a'), cell('b')]),
      ]),
      make.element('ol', [
        make.element('li', [make.text('first')]),
        make.element('li', [make.text('second')]),
      ]),
      make.element('pre', [make.text('x <- c(1, 2)\n  mean(x)')]),
    ];
    const { paper } = papers(quizOf(make.item({ id: 'i', points: 1, body })));
    const page = paperHtml(paper, PAPER_STYLE, nothing);
    expect(page)
      .to.include('colspan="2"')
      .and.to.include('<ol><li>')
      .and.to.match(/<pre[^>]*>x &lt;- c\(1, 2\)<br> {2}mean/u);
    const text = await inDocument(await paperDocx(paper, PAPER_STYLE, nothing));
    for (const words of ['Heights', 'wide', '1. first', '2. second', 'mean(x)'])
      expect(text).to.include(words);
  });

  it('of nothing, or of an item that says nothing, is still a paper', async () => {
    for (const holding of [quizOf(), quizOf(make.item({ id: 'i' }))]) {
      const { paper, key } = papers(holding);
      expect(paperHtml(paper, PAPER_STYLE, nothing)).to.include('Quiz');
      expect(await inDocument(await paperDocx(paper, PAPER_STYLE, nothing))).to.include('Quiz');
      expect(await inDocument(await keyDocx(key, PAPER_STYLE, nothing))).to.include('Key: Quiz');
    }
  });
});

describe('the key of a paper', () => {
  it('names what is right by its letter in this version, and how it is scored', async () => {
    const { holding } = await demo('every-kind.zip');
    const quiz = holding.quizzes[0]!;
    for (const version of versionsOf(holding, quiz, 3, 'x').versions) {
      const { made } = paperOf(version, quiz.title);
      const { entries } = keyOf(version, quiz.title, []);
      const choice = made.sections.flatMap((s) => s.questions).find((q) => q.id === entries[0]!.id)!;
      const options = choice.blocks.find((b) => b.kind === 'options')!;
      const [answer] = entries[0]!.answers;
      const right = options.options.find((o) => answer!.startsWith(`${o.label} (`))!;
      expect(JSON.stringify(right.blocks)).to.include('One all-round white light');
      expect(entries[0]!.rule).to.equal('1 point for exactly the key, else 0.');
    }
  });

  it('has the rubric of an essay, the solution, and what is said to who marks', () => {
    const essay = make.item({
      id: 'e',
      points: 4,
      body: [
        { kind: 'rubricBlock', view: 'scorer', children: [make.text('Look for the tide.')] },
        { kind: 'rubricBlock', view: 'candidate', children: [make.text('Write a page.')] },
        {
          kind: 'extendedText',
          responseId: 'R',
          prompt: [make.text('Plan it.')],
          expectedLines: 5,
          expectedLength: null,
        },
      ],
      responses: [make.response('R', 'single', 'string')],
      feedback: [
        {
          id: 's',
          kind: 'solution',
          title: '',
          outcome: 'S',
          show: true,
          content: [make.text('Start at low water.')],
        },
      ],
    });
    const level = (title: string, points: number) => ({
      id: title,
      title,
      points: { low: points, high: points },
      description: `${title} work`,
      feedback: '',
    });
    const rubric = {
      id: 'r',
      title: 'Passage plan',
      description: '',
      mode: 'points',
      criteria: [
        {
          id: 'c',
          title: 'Tides',
          description: '',
          weight: null,
          outcome: null,
          levels: [level('Good', 4), level('Poor', 1)],
        },
      ],
      attachedTo: ['e'],
      metadata: [],
      origin: null,
    } as const;
    const { paper, key } = papers({ ...quizOf(essay), rubrics: [rubric] });
    const onPaper = said(paperHtml(paper, PAPER_STYLE, nothing));
    expect(onPaper).to.include('Write a page.').and.to.include('Plan it.');
    for (const secret of ['Look for the tide', 'Start at low water', 'Good work'])
      expect(onPaper).to.not.include(secret);
    const inKey = said(keyHtml(key, PAPER_STYLE, nothing));
    for (const words of [
      'Look for the tide.',
      'Start at low water.',
      'Passage plan',
      'Good (4)',
      'Poor work',
      'marked by a person',
    ])
      expect(inKey).to.include(words);
  });
});
