import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { demoFiles } from '../../../demo/packages.ts';
import { run } from './run.ts';

interface Report {
  readonly items: readonly {
    id: string;
    title: string;
    points: number;
    key: string[];
    choices: { id: string }[];
  }[];
  readonly quizzes: readonly { id: string; title: string; items: number; points: number }[];
  readonly findings: readonly { code: string }[];
}

describe('the command line: putting right', () => {
  let folder = '';
  const at = (name: string): string => join(folder, name);
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'alforja-mend-'));
    for (const file of demoFiles()) await writeFile(at(file.name), file.bytes);
  });
  after(() => rm(folder, { recursive: true, force: true }));
  const save = async (name: string, value: unknown): Promise<string> => {
    await writeFile(at(name), typeof value === 'string' ? value : JSON.stringify(value));
    return at(name);
  };
  const inspected = async (path: string): Promise<Report> =>
    (await run('inspect', path, '--json')).json() as unknown as Report;

  it('lists what can be repaired, and writes nothing', async () => {
    const before = await readdir(folder);
    const { json } = await run('mend', at('chartwork-broken.zip'), '--list', '--json');
    const { repairs, findings } = json() as unknown as {
      repairs: { code: string; node: string; edits: object[]; message: string }[];
      findings: { code: string }[];
    };
    expect(repairs.length).to.be.greaterThan(3);
    for (const r of repairs) {
      expect(r.edits.length).to.be.greaterThan(0);
      expect(r.message).to.match(/\p{L}/u);
      expect(findings.map((f) => f.code)).to.include(r.code);
    }
    expect(await readdir(folder)).to.deep.equal(before);
  });

  it('repairs everything it can, leaves the source alone, and finds nothing more the second time', async () => {
    const source = await readFile(at('chartwork-broken.zip'));
    const first = await run(
      'mend',
      at('chartwork-broken.zip'),
      '--code',
      'all',
      '-o',
      at('mended.zip'),
      '--json',
    );
    const done = first.json() as unknown as { written: string[]; edits: object[]; refused: object[] };
    expect(done.written).to.deep.equal([at('mended.zip')]);
    expect(done.edits.length).to.be.greaterThan(3);
    expect(done.refused).to.deep.equal([]);
    expect(await readFile(at('chartwork-broken.zip'))).to.deep.equal(source);
    const again = await run('mend', at('mended.zip'), '--code', 'all', '-o', at('again.zip'), '--json');
    expect((again.json() as unknown as { edits: object[] }).edits).to.deep.equal([]);
    // A cartridge has no place for the title of a bank; its file is named after it.
    await run('mend', at('pilotage-week5.imscc'), '--code', 'all', '-o', at('once.imscc'), '--json');
    const twice = await run('mend', at('once.imscc'), '--code', 'all', '-o', at('twice.imscc'), '--json');
    expect((twice.json() as unknown as { edits: object[] }).edits).to.deep.equal([]);
  });

  it('applies edits in their order, and compares with what they planned', async () => {
    const source = at('pilotage-week5.imscc');
    const { items, quizzes } = await inspected(source);
    const [one, two, three] = items;
    const edits = [
      { op: 'title', node: one!.id, to: 'Renamed' },
      { op: 'title', node: one!.id, to: 'Renamed again' },
      { op: 'points', node: two!.id, to: two!.points + 3 },
      { op: 'leave-out', node: three!.id },
      { op: 'title', node: quizzes[0]!.id, kind: 'quiz', to: 'Week five' },
      { op: 'points', node: 'nobody', to: 1 },
    ];
    const list = await save('edits.json', edits);
    const mended = await run('mend', source, '--edits', list, '-o', at('edited.imscc'), '--json');
    expect(mended.exit).to.equal(1);
    const said = mended.json() as unknown as { edits: object[]; refused: { edit: object; why: string }[] };
    expect(said.edits).to.have.length(5);
    expect(said.refused).to.have.length(1);
    expect(said.refused[0]!.why).to.include('nobody');
    const now = await inspected(at('edited.imscc'));
    expect(now.items.find((i) => i.id === one!.id)!.title).to.equal('Renamed again');
    expect(now.items.find((i) => i.id === two!.id)!.points).to.equal(two!.points + 3);
    expect(now.items.some((i) => i.id === three!.id)).to.equal(false);

    const plain = await run('compare', source, at('edited.imscc'), '--json');
    expect((plain.json() as unknown as { verdict: string }).verdict).to.equal('incomplete');
    const good = await save('good.json', edits.slice(0, -1));
    const planned = await run('compare', source, at('edited.imscc'), '--edits', good, '--json');
    const { verdict, onPurpose } = planned.json() as unknown as {
      verdict: string;
      onPurpose: { node: string; facet: string; from: string; to: string }[];
    };
    expect([verdict, planned.exit]).to.deep.equal(['intact', 0]);
    expect(onPurpose).to.deep.include({
      node: one!.id,
      kind: 'item',
      facet: 'title',
      from: one!.title,
      to: 'Renamed again',
    });
    const changed = onPurpose.map((p) => `${p.node} ${p.facet}`);
    expect(changed).to.include.members([
      `${two!.id} points`,
      `${three!.id} membership`,
      `${quizzes[0]!.id} title`,
    ]);
  });

  it('says an accident is one, also beside what was changed on purpose', async () => {
    const source = at('pilotage-week5.imscc');
    const [one, two] = (await inspected(source)).items;
    const planned = await save('plan.json', [{ op: 'points', node: one!.id, to: 9 }]);
    const other = await save('accident.json', [
      { op: 'points', node: one!.id, to: 9 },
      { op: 'points', node: two!.id, to: 7 },
    ]);
    await run('mend', source, '--edits', other, '-o', at('accident.imscc'), '--json');
    const compared = await run('compare', source, at('accident.imscc'), '--edits', planned, '--json');
    const { pairs, onPurpose } = compared.json() as unknown as {
      pairs: { source: string; differences: { facet: string }[] }[];
      onPurpose: { node: string; facet: string }[];
    };
    expect(pairs.filter((p) => p.differences.length > 0).map((p) => p.source)).to.deep.equal([two!.id]);
    expect(onPurpose.filter((p) => p.facet === 'points' && p.node === one!.id)).to.have.length(1);
    expect(onPurpose.some((p) => p.node === two!.id)).to.equal(false);
  });

  it('refuses what is no list of edits, names the file, and writes nothing', async () => {
    const source = at('pilotage-week5.imscc');
    for (const [name, content] of [
      ['not.json', '{'],
      ['object.json', {}],
      ['many.json', `[${Array.from({ length: 200_001 }, () => '{}').join(',')}]`],
    ] as const) {
      const list = await save(name, content);
      const { exit, json } = await run('mend', source, '--edits', list, '-o', at('never.imscc'), '--json');
      const { error } = json() as unknown as { error: { code: string; where: { path: string } } };
      expect([exit, error.code, error.where.path]).to.deep.equal([2, 'edits-unreadable', list]);
    }
    expect(await readdir(folder)).not.to.include('never.imscc');
    const no = await run('mend', source, '--edits', at('nowhere.json'), '-o', at('never.imscc'), '--json');
    expect(no.exit).to.equal(2);
    const missing = await run('mend', source, '--code', 'no-such-finding', '-o', at('never.imscc'), '--json');
    expect(missing.exit).to.equal(2);
    const bare = await run('mend', source, '--json');
    expect(bare.exit).to.equal(2);
  });

  it('does not replace a file unless told so, and writes other formats', async () => {
    const source = at('pilotage-week5.imscc');
    await run('mend', source, '-o', at('kept.imscc'), '--json');
    expect((await run('mend', source, '-o', at('kept.imscc'), '--json')).exit).to.equal(2);
    const forced = await run('mend', source, '-o', at('kept.imscc'), '--force', '--json');
    expect(forced.exit).not.to.equal(2);
    const other = await run('mend', source, '--to', 'qti2.1', '-o', at('other.zip'), '--json');
    expect(other.exit).not.to.equal(2);
    expect((await inspected(at('other.zip'))).items.length).to.equal((await inspected(source)).items.length);
  });
});
