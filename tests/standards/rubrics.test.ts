import { expect } from 'chai';
import { readSheet } from 'read-excel-file/node';
import { readHolding, rubricPoints, writeRubrics } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';

/**
 * A package of a framework as another program would write it; field names of 1EdTech CASE 1.0, from memory.
 */
const PACKAGE = {
  CFDocument: {
    identifier: '0e9f7a3c-5a0e-4a1b-9c3d-000000000001',
    uri: 'https://standards.example/doc',
    title: 'Seamanship',
    creator: 'Saltmarsh',
    lastChangeDateTime: '2026-01-01T00:00:00Z',
  },
  CFItems: [],
  CFAssociations: [],
  CFRubrics: [
    {
      identifier: '0e9f7a3c-5a0e-4a1b-9c3d-000000000002',
      uri: 'https://standards.example/r',
      title: 'Passage plan',
      description: 'For week 9',
      lastChangeDateTime: '2026-01-01T00:00:00Z',
      CFRubricCriteria: [
        {
          identifier: 'c2',
          uri: 'u',
          category: 'Tides',
          description: 'Heights and times',
          weight: 1,
          position: 2,
          rubricId: 'r',
          lastChangeDateTime: 'x',
          CFRubricCriterionLevels: [{ identifier: 'l3', quality: 'Full', score: 4, position: 1 }],
        },
        {
          identifier: 'c1',
          uri: 'u',
          category: 'Waypoints',
          CFItemURI: 'https://standards.example/i',
          weight: 2,
          position: 1,
          CFRubricCriterionLevels: [
            {
              identifier: 'l2',
              description: 'none',
              quality: 'Missing',
              score: 0,
              feedback: 'Plan again.',
              position: 2,
              rubricCriterionId: 'c1',
            },
            { identifier: 'l1', description: 'all charted', quality: 'Complete', score: 3, position: 1 },
          ],
        },
      ],
    },
  ],
};
const bytes = (data: unknown): Uint8Array => new TextEncoder().encode(JSON.stringify(data));

describe('1EdTech CASE 1.0, "CFRubric", "CFRubricCriterion", "CFRubricCriterionLevel" (from memory)', () => {
  it('is read with its positions, weights, outcome and feedback; total is the sum of weight times highest score', async () => {
    const { rubrics, format } = await readHolding('frame.json', bytes(PACKAGE), nodePlatform);
    expect(format).to.deep.equal({ container: 'json', standard: 'case', version: '1.0' });
    const [r] = rubrics;
    expect(r!.criteria.map((c) => [c.title, c.outcome, c.levels.map((l) => l.title)])).to.deep.equal([
      ['Waypoints', 'https://standards.example/i', ['Complete', 'Missing']],
      ['Tides', null, ['Full']],
    ]);
    expect(r!.criteria[0]!.levels[1]!.feedback).to.equal('Plan again.');
    expect(rubricPoints(r!)).to.equal(2 * 3 + 1 * 4);
  });

  it('is read as a list, alone, or under CFPackage', async () => {
    const [one] = PACKAGE.CFRubrics;
    for (const data of [{ CFPackage: PACKAGE }, { CFRubrics: [one] }, [one], one, { CFRubric: one }])
      expect(
        (await readHolding('r.json', bytes(data), nodePlatform)).rubrics.map((r) => r.title),
      ).to.deep.equal(['Passage plan']);
  });

  it('is written with the fields that it requires of every object, in order of position', async () => {
    const { rubrics } = await readHolding('frame.json', bytes(PACKAGE), nodePlatform);
    const out = JSON.parse(
      new TextDecoder().decode((await writeRubrics(rubrics, 'case1.0', nodePlatform)).bytes),
    ) as typeof PACKAGE;
    const [r] = out.CFRubrics;
    const uuid = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/u;
    for (const held of [
      r!,
      ...r!.CFRubricCriteria,
      ...r!.CFRubricCriteria.flatMap((c) => c.CFRubricCriterionLevels),
    ]) {
      expect(held.identifier).to.match(uuid);
      expect(Object.keys(held)).to.include.members(['identifier', 'uri', 'lastChangeDateTime']);
    }
    expect(r!.CFRubricCriteria.map((c) => [c.position, c.category])).to.deep.equal([
      [1, 'Waypoints'],
      [2, 'Tides'],
    ]);
    expect(Object.keys(out)).to.deep.equal(['CFDocument', 'CFItems', 'CFAssociations', 'CFRubrics']);
  });
});

describe('a workbook, by a reader that is not ours (read-excel-file)', () => {
  it('shows the header and the same cells, numbers as numbers', async () => {
    const { rubrics } = await readHolding('frame.json', bytes(PACKAGE), nodePlatform);
    const { bytes: book } = await writeRubrics(rubrics, 'xlsx', nodePlatform);
    const rows = await readSheet(Buffer.from(book));
    expect(rows[0]!.slice(0, 4)).to.deep.equal(['rubric', 'criterion', 'description', 'weight']);
    expect(rows[1]!.slice(0, 4)).to.deep.equal(['Passage plan', 'Waypoints', null, 2]);
    expect(rows[1]).to.include.members(['Complete', 3, 'all charted']);
  });
});
