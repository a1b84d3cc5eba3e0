import { expect } from 'chai';
import { evaluate, inspectReport, type Answers } from '@alforja/core';
import { document as qti } from '../../../demo/qti12.ts';
import { codes, item12, read, readZip } from '../../support/read.ts';

const label = (id: string, text = id, extra = ''): string =>
  `<response_label ident="${id}" ${extra}><material><mattext>${text}</mattext></material></response_label>`;
const lid = (ids: string[], cardinality = 'Single', render = ''): string =>
  `<response_lid ident="R" rcardinality="${cardinality}"><render_choice ${render}>${ids.map((i) => label(i)).join('')}</render_choice></response_lid>`;
const show = (inside: string): string =>
  `<presentation><material><mattext>Stem</mattext></material>${inside}</presentation>`;
const fib = (attrs = '', tag = 'response_str'): string => `<${tag} ident="R"><render_fib ${attrs}/></${tag}>`;
const decvar = (attrs = ''): string =>
  `<outcomes><decvar varname="SCORE" vartype="Decimal" ${attrs}/></outcomes>`;
const cond = (test: string, score: number | string, attrs = '', action = 'Set'): string =>
  `<respcondition ${attrs}><conditionvar>${test}</conditionvar><setvar varname="SCORE" action="${action}">${score}</setvar></respcondition>`;
const eq = (v: string, attrs = ''): string => `<varequal respident="R" ${attrs}>${v}</varequal>`;
const process = (conditions: string, dec = decvar()): string =>
  `<resprocessing>${dec}${conditions}</resprocessing>`;

/** What an item scores, answer by answer. */
async function scores(inside: string, answers: readonly (readonly (string | number)[])[]): Promise<number[]> {
  const item = await item12(inside);
  return answers.map((values) => evaluate(item, values.length > 0 ? ({ R: values } as Answers) : {}).raw);
}

describe('reading QTI 1.2', () => {
  const table: [what: string, xml: string, answers: (string | number)[][], expected: number[]][] = [
    ['one answer', show(lid(['A', 'B'])) + process(cond(eq('B'), 1)), [['A'], ['B'], []], [0, 1, 0]],
    [
      'several, exactly',
      show(lid(['A', 'B', 'C'], 'Multiple')) +
        process(cond(`<and>${eq('A')}${eq('B')}<not>${eq('C')}</not></and>`, 100)),
      [['A'], ['B', 'A'], ['A', 'B', 'C']],
      [0, 100, 0],
    ],
    [
      'several, without an "and"',
      show(lid(['A', 'B', 'C'], 'Multiple')) +
        process(cond(`${eq('A')}${eq('B')}<not>${eq('C')}</not>`, 100)),
      [['A'], ['A', 'B'], ['A', 'B', 'C']],
      [0, 100, 0],
    ],
    [
      'parts that add up',
      show(lid(['A', 'B', 'C'], 'Multiple')) +
        process(
          cond(eq('A'), 1, 'continue="Yes"', 'Add') +
            cond(eq('B'), 2, 'continue="Yes"', 'Add') +
            cond(eq('C'), 1, 'continue="Yes"', 'Subtract'),
        ),
      [['A'], ['A', 'B'], ['A', 'C'], ['C']],
      [1, 3, 0, -1],
    ],
    [
      'bounds, once at the end',
      show(lid(['A', 'B'], 'Multiple')) +
        process(
          cond(eq('A'), 5, 'continue="Yes"', 'Subtract') + cond(eq('B'), 8, 'continue="Yes"', 'Add'),
          decvar('minvalue="0" maxvalue="2"'),
        ),
      [['A'], ['A', 'B'], ['B']],
      [0, 2, 2],
    ],
    [
      'stopping after the first that is true',
      show(lid(['A', 'B'])) + process(cond(eq('A'), 1) + cond('<other/>', 0.25)),
      [['A'], ['B'], []],
      [1, 0.25, 0.25],
    ],
    [
      'going on with continue="Yes"',
      show(lid(['A', 'B'])) + process(cond(eq('A'), 1, 'continue="Yes"') + cond('<other/>', 0.25)),
      [['A'], ['B']],
      [0.25, 0.25],
    ],
    [
      'text without case',
      show(fib()) + process(cond(`<or>${eq('Isogonal')}${eq('isogonic')}</or>`, 1)),
      [['ISOGONAL'], ['isogonic'], ['isogonal '], ['x']],
      [1, 1, 0, 0],
    ],
    [
      'text with case',
      show(fib()) + process(cond(eq('MHWS', 'case="Yes"'), 1)),
      [['MHWS'], ['mhws']],
      [1, 0],
    ],
    [
      'numbers as numbers',
      show(fib('', 'response_num')) + process(cond(eq('42.0'), 1)),
      [[42], [42.5], []],
      [1, 0, 0],
    ],
    [
      'a numeric range',
      show(fib('fibtype="Decimal"')) +
        process(cond('<vargte respident="R">3.2</vargte><varlt respident="R">3.4</varlt>', 2)),
      [[3.2], [3.3], [3.4], [3.1]],
      [2, 2, 0, 0],
    ],
    [
      'a substring',
      show(fib()) + process(cond('<varsubstring respident="R">tide</varsubstring>', 1)),
      [['spring TIDES'], ['ebb']],
      [1, 0],
    ],
    [
      'multiply and divide',
      show(lid(['A', 'B'])) +
        process(
          cond(eq('A'), 8, 'continue="Yes"') +
            cond(eq('A'), 3, 'continue="Yes"', 'Multiply') +
            cond(eq('A'), 2, 'continue="Yes"', 'Divide'),
        ),
      [['A'], ['B']],
      [12, 0],
    ],
    [
      'unanswered',
      show(lid(['A', 'B'])) + process(cond('<unanswered respident="R"/>', 0.5) + cond(eq('A'), 1)),
      [[], ['A'], ['B']],
      [0.5, 1, 0],
    ],
    [
      'not on no answer at all',
      show(lid(['A', 'B'], 'Multiple')) + process(cond(`<not>${eq('A')}</not>`, 1)),
      [[], ['A'], ['B']],
      [1, 0, 1],
    ],
    [
      'an outcome of another name',
      show(lid(['A', 'B'])) +
        `<resprocessing><outcomes><decvar varname="que_score"/></outcomes><respcondition><conditionvar>${eq('A')}</conditionvar><setvar varname="que_score">4</setvar></respcondition></resprocessing>`,
      [['A'], ['B']],
      [4, 0],
    ],
  ];
  for (const [what, xml, answers, expected] of table) {
    it(`scores ${what}`, async () => expect(await scores(xml, answers)).to.deep.equal(expected));
  }

  it('keeps what cannot be read whole, with a finding that has a place', async () => {
    const holding = await read(
      qti(`<item ident="i1">\n${show('<response_extension ident="R"><odd/></response_extension>')}</item>`),
    );
    const [item] = holding.items;
    const custom = item!.body.find((n) => n.kind === 'custom');
    expect(custom).to.include({ kind: 'custom', name: 'response_extension' });
    expect(custom).to.have.property('xml').that.contains('<odd/>');
    const found = holding.findings.find((f) => f.code === 'opaque-content')!;
    expect(found.where).to.include({ path: 'given.xml', line: 3, node: 'i1' });
  });

  it('knows where every item stands, with its raw XML', async () => {
    const holding = await read(
      qti(`<section ident="s">\n  <item ident="a"/>\n    <item ident="b" title="é"/></section>`),
    );
    const [, b] = holding.items;
    expect(b!.origin).to.deep.equal({
      kind: 'xml',
      path: 'given.xml',
      line: 5,
      column: 5,
      xml: '<item ident="b" title="é"/>',
    });
  });

  it('reads a quiz with settings, sections, draws and its bank', async () => {
    const holding = await readZip({
      'quiz.xml':
        qti(`<assessment ident="q" title="Quiz"><qtimetadata><qtimetadatafield><fieldlabel>cc_maxattempts</fieldlabel><fieldentry>2</fieldentry></qtimetadatafield></qtimetadata>
        <duration>PT1H30M</duration><rubric><material><mattext>Work alone.</mattext></material></rubric>
        <section ident="root"><item ident="f1"><itemmetadata><qmd_weighting>3</qmd_weighting></itemmetadata></item>
        <section ident="s1" title="Outer"><section ident="s2" title="Inner"><selection_ordering><selection><sourcebank_ref>bank</sourcebank_ref><selection_number>2</selection_number><selection_extension><points_each>2.5</points_each></selection_extension></selection><order order_type="Random"/></selection_ordering></section></section></section></assessment>`),
      'bank.xml': qti(
        `<objectbank ident="bank">${[1, 2, 3].map((n) => `<item ident="b${n}" title="B${n}">${show(lid(['A', 'B']))}${process(cond(eq('A'), 1))}</item>`).join('')}</objectbank>`,
      ),
    });
    const report = inspectReport(holding);
    const [quiz] = report.quizzes;
    expect(quiz).to.deep.include({ id: 'q', title: 'Quiz', items: 3, points: 8 });
    expect(
      quiz!.sections.map((s) => [
        s.title,
        s.items,
        s.shuffle,
        s.draw && [s.draw.pick, s.draw.of, s.draw.pointsEach],
      ]),
    ).to.deep.equal([
      ['', 1, false, null],
      ['Outer / Inner', 2, true, [2, 3, 2.5]],
    ]);
    expect(quiz!.settings).to.deep.include({
      attempts: 2,
      timeLimitMinutes: 90,
      instructions: 'Work alone.',
    });
    expect(report.banks).to.deep.equal([{ id: 'bank', title: 'bank', items: 3, categories: [] }]);
    expect(report.items.find((i) => i.id === 'b1')).to.deep.include({ in: ['bank'], drawnBy: ['q'] });
    expect(codes(holding)).to.include('title-missing');
  });

  it('takes points in the documented order, and says when sources disagree', async () => {
    const fields = (...list: [string, string][]): string =>
      `<itemmetadata><qtimetadata>${list.map(([l, v]) => `<qtimetadatafield><fieldlabel>${l}</fieldlabel><fieldentry>${v}</fieldentry></qtimetadatafield>`).join('')}</qtimetadata></itemmetadata>`;
    const scored = show(lid(['A', 'B'])) + process(cond(eq('A'), 100));
    const cases: [xml: string, points: number, disagree: boolean][] = [
      [scored, 100, false],
      [fields(['qmd_weighting', '2']) + scored, 2, false],
      [fields(['qmd_weighting', '2'], ['qmd_maximumscore', '3']) + scored, 3, true],
      [fields(['qmd_maximumscore', '3'], ['cc_weighting', '4']) + scored, 4, true],
      [fields(['qmd_maximumscore', '3'], ['cc_weighting', '3']) + scored, 3, false],
    ];
    for (const [xml, points, disagree] of cases) {
      const holding = await read(qti(`<item ident="i1">${xml}</item>`));
      expect(holding.items[0]!.points).to.equal(points);
      expect(codes(holding).includes('points-disagree')).to.equal(disagree);
      expect(evaluate(holding.items[0]!, { R: ['A'] }).score).to.equal(points);
    }
  });

  it('takes out active content and keeps what is harmless', async () => {
    const html =
      '<p onclick="x()">A <b>bold</b> <a href="javascript:alert(1)">link</a><script>x()</script><iframe src="https://e.example.org"></iframe><img src="p.png" onerror="x()"><svg onload="x()"></svg></p>';
    const holding = await readZip({
      'q.xml': qti(
        `<item ident="i1"><presentation><material><mattext texttype="text/html">${html.replace(/&/gu, '&amp;').replace(/</gu, '&lt;')}</mattext></material></presentation></item>`,
      ),
      'p.png': 'x',
    });
    const stored = JSON.stringify(holding.items[0]!.body);
    expect(stored).to.contain('bold').and.contain('p.png');
    for (const bad of ['script', 'onclick', 'onerror', 'iframe', 'javascript', 'svg'])
      expect(stored).to.not.contain(bad);
    expect(codes(holding)).to.include('active-content-removed');
  });

  it('finds files as they are met in the field', async () => {
    const picture = (src: string): string =>
      `<item ident="${src.length}"><presentation><material><mattext texttype="text/html">&lt;img src="${src}"&gt;</mattext></material></presentation></item>`;
    const addresses = [
      '$IMS-CC-FILEBASE$/images/a%20b.png',
      '%24IMS-CC-FILEBASE%24/../images/a b.png?x=1',
      '$IMS-CC-FILEBASE$a b.png',
      '../images/A B.png',
      'missing.png',
    ];
    const holding = await readZip({
      'quiz/q.xml': qti(addresses.map(picture).join('')),
      'images/a b.png': 'x',
    });
    expect(holding.items.map((i) => i.files.map((f) => `${f.path} ${f.present}`).join())).to.deep.equal([
      'images/a b.png true',
      'images/a b.png true',
      'images/a b.png true',
      'images/a b.png true',
      'quiz/missing.png false',
    ]);
  });
});
