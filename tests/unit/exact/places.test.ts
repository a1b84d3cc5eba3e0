import { expect } from 'chai';
import type { ContainerReport } from '@alforja/core';
import { NS21 } from '../../support/read.ts';
import { compared } from './support.ts';

interface Part {
  readonly title: string;
  readonly items: readonly (string | readonly [string, number])[];
  readonly shuffle?: boolean;
  readonly pick?: number;
}

const item = (id: string): string =>
  `<assessmentItem ${NS21} identifier="${id}" title="About ${id}" adaptive="false" timeDependent="false"><responseDeclaration identifier="R" cardinality="single" baseType="identifier"><correctResponse><value>A</value></correctResponse></responseDeclaration><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"/><itemBody><p>The question about ${id}</p><choiceInteraction responseIdentifier="R" maxChoices="1" shuffle="false"><simpleChoice identifier="A">yes ${id}</simpleChoice><simpleChoice identifier="B">no ${id}</simpleChoice></choiceInteraction></itemBody><responseProcessing template="http://www.imsglobal.org/question/qti_v2p1/rptemplates/match_correct"/></assessmentItem>`;

const ITEMS = ['shoal', 'beacon', 'tide', 'chart', 'buoy', 'lantern'];

/** A package whose test has these sections. */
function test(...parts: readonly Part[]): Record<string, string> {
  const sections = parts.map(
    (p, at) =>
      `<assessmentSection identifier="s${at}" title="${p.title}" visible="true">${p.pick ? `<selection select="${p.pick}"/>` : ''}${p.shuffle ? '<ordering shuffle="true"/>' : ''}${p.items
        .map((ref) => (typeof ref === 'string' ? ([ref, 1] as const) : ref))
        .map(
          ([id, weight], n) =>
            `<assessmentItemRef identifier="r${at}_${n}" href="${id}.xml">${weight === 1 ? '' : `<weight identifier="W" value="${weight}"/>`}</assessmentItemRef>`,
        )
        .join('')}</assessmentSection>`,
  );
  return {
    'test.xml': `<assessmentTest ${NS21} identifier="t" title="T"><testPart identifier="p" navigationMode="linear" submissionMode="individual">${sections.join('')}</testPart></assessmentTest>`,
    ...Object.fromEntries(ITEMS.map((id) => [`${id}.xml`, item(id)])),
  };
}

async function quiz(from: readonly Part[], to: readonly Part[]): Promise<ContainerReport> {
  return (await compared(test(...from), test(...to))).containers.find((c) => c.kind === 'quiz')!;
}

const facetsOf = (report: ContainerReport): string[] => report.differences.map((d) => d.facet);

describe('where an item stands', () => {
  const two = (a: readonly string[], b: readonly string[], over: Partial<Part> = {}): Part[] => [
    { title: 'Day', items: a, ...over },
    { title: 'Night', items: b },
  ];

  it('is told where it moved from the end of one section to the start of the next', async () => {
    const report = await quiz(two(['shoal', 'beacon'], ['tide']), two(['shoal'], ['beacon', 'tide']));
    expect(report.differences).to.deep.equal([
      {
        facet: 'membership',
        from: { placed: [{ item: 'About beacon', section: 'Day' }] },
        to: { placed: [{ item: 'About beacon', section: 'Night' }] },
        example: null,
      },
    ]);
  });

  it('is told where two items of different sections changed places', async () => {
    expect(
      facetsOf(await quiz(two(['shoal', 'beacon'], ['tide']), two(['shoal', 'tide'], ['beacon']))),
    ).to.deep.equal(['membership']);
  });

  it('is told by its order in a section that is not shuffled, and not in one that is', async () => {
    const order = ['shoal', 'beacon', 'tide'];
    const turned = ['beacon', 'shoal', 'tide'];
    expect(facetsOf(await quiz(two(order, ['chart']), two(turned, ['chart'])))).to.deep.equal(['membership']);
    const shuffled = { shuffle: true };
    expect(
      facetsOf(await quiz(two(order, ['chart'], shuffled), two(turned, ['chart'], shuffled))),
    ).to.deep.equal([]);
  });

  it('is told by which section is shuffled', async () => {
    const day = [
      { title: 'Day', items: ['shoal', 'tide'], shuffle: true },
      { title: 'Night', items: ['chart', 'buoy'] },
    ];
    const night = [
      { title: 'Day', items: ['shoal', 'tide'] },
      { title: 'Night', items: ['chart', 'buoy'], shuffle: true },
    ];
    expect(facetsOf(await quiz(day, night))).to.deep.equal(['shuffle']);
    const three = (...on: boolean[]): Part[] =>
      on.map((shuffle, at) => ({ title: `Part ${at}`, items: [ITEMS[at]!], shuffle }));
    expect(facetsOf(await quiz(three(true, false, false), three(true, true, false)))).to.deep.equal([
      'shuffle',
    ]);
  });

  it('is told by what is drawn from: another pool of the same size', async () => {
    const pool = (items: readonly string[], fixed: readonly string[]): Part[] => [
      { title: 'Drawn', items, pick: 1 },
      { title: 'Fixed', items: fixed },
    ];
    expect(
      facetsOf(await quiz(pool(['shoal', 'tide'], ['chart']), pool(['shoal', 'chart'], ['tide']))),
    ).to.deep.equal(['membership']);
    expect(
      facetsOf(await quiz(pool(['shoal', 'tide'], ['chart']), pool(['tide', 'shoal'], ['chart']))),
    ).to.deep.equal([]);
  });

  it('is told by what its reference weighs, beside another place of the same item', async () => {
    const weighed = (first: number, second: number): Part[] => [
      { title: 'Once', items: [['shoal', first]] },
      { title: 'Again', items: [['shoal', second], 'tide'] },
    ];
    const report = await quiz(weighed(1, 2), weighed(1, 3));
    expect(report.differences.find((d) => d.facet === 'membership')).to.deep.include({
      from: { worth: [{ item: 'About shoal', points: 2 }] },
      to: { worth: [{ item: 'About shoal', points: 3 }] },
    });
    expect(report.differences.find((d) => d.facet === 'points')).to.deep.include({
      from: { points: 4, percentage: false },
    });
  });

  it('is the same where untitled sections asked in order are joined', async () => {
    const split = [
      { title: '', items: ['shoal'] },
      { title: '', items: ['tide', 'chart'] },
    ];
    expect(facetsOf(await quiz(split, [{ title: '', items: ['shoal', 'tide', 'chart'] }]))).to.deep.equal([]);
  });
});
