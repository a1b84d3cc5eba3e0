import { expect } from 'chai';
import {
  findRubrics,
  listRubrics,
  rubricAt,
  rubricFile,
} from '../../../src/lib/server/library/heldRubrics.ts';
import {
  changeRubric,
  copyRubric,
  keepRubrics,
  makeIndependent,
  makeRubric,
  packRubrics,
  removeRubric,
  takeChange,
  type RubricContent,
} from '../../../src/lib/server/library/ownRubrics.ts';
import { readTable, rememberLayout, tablesOfPackage } from '../../../src/lib/server/library/rubricTables.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { MOST_CRITERIA } from '../../../src/lib/server/work/heldRubrics.ts';
import { passagePlanCsv } from '../../../demo/rubricFiles.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

const OWN = 'own';
const contentOf = async (id: string, over: Partial<RubricContent> = {}): Promise<RubricContent> => {
  const { rubric } = (await rubricAt(OWN, id))!;
  return {
    title: rubric.title,
    description: rubric.description,
    mode: rubric.mode,
    freeComments: rubric.freeComments ?? false,
    criteria: rubric.criteria.map((c) => ({ ...c, levels: [...c.levels] })),
    ...over,
  };
};

describe('rubrics of one’s own', () => {
  before(openServer);
  after(closeServer);

  it('are made, changed and taken out; what is gone is said, not changed', async () => {
    const id = await makeRubric();
    expect(await changeRubric(id, await contentOf(id, { title: 'Logbook' }))).to.equal(null);
    expect((await rubricAt(OWN, id))!.rubric.title).to.equal('Logbook');
    const content = await contentOf(id);
    expect(await removeRubric(id)).to.equal(true);
    expect(await removeRubric(id)).to.equal(false);
    expect(await changeRubric(id, content)).to.match(/no such rubric/u);
    expect(await copyRubric(OWN, id, false)).to.equal(null);
  });

  it('follow an original until they are made independent', async () => {
    const original = await makeRubric();
    await changeRubric(original, await contentOf(original, { title: 'Original' }));
    const follower = (await copyRubric(OWN, original, true))!;
    const copy = (await copyRubric(OWN, original, false))!;
    expect((await rubricAt(OWN, follower))!.rubric.title).to.equal('Original');
    expect((await rubricAt(OWN, copy))!.rubric.title, 'a copy beside it has a name of its own').not.to.equal(
      'Original',
    );
    expect(await changeRubric(follower, await contentOf(follower, { title: 'Mine' }))).to.match(
      /follows another/u,
    );
    await changeRubric(original, await contentOf(original, { description: 'Seen anew.' }));
    expect((await rubricAt(OWN, follower))!.rubric.description).to.equal('');
    expect(await takeChange(follower)).to.equal(true);
    expect((await rubricAt(OWN, follower))!.rubric.description).to.equal('Seen anew.');
    expect(await makeIndependent(follower)).to.equal(true);
    expect(await makeIndependent(follower)).to.equal(false);
    expect(await takeChange(follower), 'nothing to take once it is independent').to.equal(false);
    expect(await changeRubric(follower, await contentOf(follower, { title: 'Mine' }))).to.equal(null);
  });

  it('are kept from a table, found by words, and packed as a file that is read again', async () => {
    const rows = passagePlanCsv()
      .split('\r\n')
      .map((line) => line.slice(1, -1).split('","'));
    const read = await readTable({ rows, title: '', roles: null, headerRow: null });
    expect([read.by, read.trouble, read.rubrics.length]).to.deep.equal(['header', null, 1]);
    const [id] = await keepRubrics(read.rubrics);
    expect((await findRubrics('passage')).map((r) => r.id)).to.include(id);
    const file = (await packRubrics([{ place: OWN, rubric: id! }]))!;
    await settled();
    const held = (await packageById(file))!;
    expect(held.tree!.rubrics.map((r) => [r.title, r.criteria.length])).to.deep.equal([['Passage plan', 4]]);
    expect(await packRubrics([{ place: OWN, rubric: 'nobody' }])).to.equal(null);
  });

  it('are read from a table as somebody says, and from then on from every table of that header', async () => {
    const rows = [
      ['Was', 'Gut', 'Schlecht'],
      ['Kurs', 'alles', 'nichts'],
    ];
    const guessed = await readTable({ rows, title: 'Logbuch', roles: null, headerRow: null });
    expect(guessed.by).not.to.equal('remembered');
    const wrong = await readTable({ rows, title: '', roles: ['named', 'named', 'skip'], headerRow: 0 });
    expect(wrong.trouble).to.equal('Say which column names the criterion.');
    const roles = ['criterion', 'named', 'named'] as const;
    const said = await readTable({ rows, title: 'Logbuch', roles: [...roles], headerRow: 0 });
    expect(said.rubrics[0]!.criteria[0]!.levels.map((l) => l.title)).to.deep.equal(['Gut', 'Schlecht']);
    await rememberLayout(rows[0]!, roles);
    const again = await readTable({
      rows: [rows[0]!, ['Tide', 'ja', 'nein']],
      title: '',
      roles: null,
      headerRow: null,
    });
    expect([again.by, again.rubrics.length]).to.deep.equal(['remembered', 1]);
  });

  it('of any length are listed, shown in part, and written whole; a very long one is not copied', async () => {
    const long = (criteria: number): string =>
      JSON.stringify({
        CFRubrics: [
          {
            identifier: 'long',
            title: `Of ${criteria}`,
            CFRubricCriteria: Array.from({ length: criteria }, (_, n) => ({
              identifier: `c${n}`,
              description: `Criterion ${n}`,
              CFRubricCriterionLevels: [{ identifier: `l${n}`, score: 2, position: 1 }],
            })),
          },
        ],
      });
    for (const criteria of [MOST_CRITERIA, MOST_CRITERIA + 1, 5000]) {
      const { id: place } = await brought(`long-${criteria}.json`, long(criteria));
      const listed = (await listRubrics()).find((r) => r.place === place)!;
      expect([listed.criteria, listed.points]).to.deep.equal([criteria, 2 * criteria]);
      const shown = (await rubricAt(place, listed.id))!;
      expect([shown.criteria, shown.points]).to.deep.equal([criteria, 2 * criteria]);
      expect(shown.rubric.criteria.length).to.equal(Math.min(criteria, MOST_CRITERIA));
      const { bytes } = (await rubricFile([{ place, rubric: listed.id }], 'csv'))!;
      expect(new TextDecoder().decode(bytes)).to.contain(`Criterion ${criteria - 1}`);
      const copied = await copyRubric(place, listed.id, false).catch((error: unknown) => error);
      if (criteria <= MOST_CRITERIA) expect(copied).to.be.a('string');
      else
        expect(String(copied)).to.contain(
          `It has ${criteria} criteria; a rubric that is kept here has 500 at most.`,
        );
    }
  });

  it('show the table of a file that nobody could read', async () => {
    const held = await brought('marks.csv', 'x;y;z\n1;2;3\n4;5;6');
    expect((await tablesOfPackage(held.id)).map((t) => [t.name, t.unread, t.rows.length])).to.deep.equal([
      ['marks', true, 3],
    ]);
    expect(await tablesOfPackage('nobody')).to.deep.equal([]);
  });
});
