import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { expect } from 'chai';
import { demoFiles } from '../../../demo/packages.ts';
import { assessmentXml, bankXml, PLAIN } from '../../../demo/qti12.ts';
import { zip } from '../../support/read.ts';
import { run } from './run.ts';

interface Said {
  written: string[];
  versions: { name: string; seed: string; points: number; items: { id: string; choices: string[] }[] }[];
  findings: { code: string }[];
  error: { code: string };
}

describe('alforja versions', () => {
  let folder = '';
  const at = (name: string): string => join(folder, name);
  const versions = async (file: string, ...more: string[]): Promise<{ exit: number; said: Said }> => {
    const { exit, json } = await run('versions', at(file), '--quiz', 'midterm', ...more, '--json');
    return { exit, said: json() as unknown as Said };
  };
  const usual = (to: string, out: string, seed = 'row 1', count = '3'): string[] => [
    '--count',
    count,
    '--seed',
    seed,
    '--to',
    to,
    '-o',
    at(out),
  ];
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'alforja-versions-'));
    for (const { name, bytes } of demoFiles()) await writeFile(at(name), bytes);
    const empty = {
      'quiz.xml': assessmentXml(
        {
          id: 'midterm',
          title: 'Midterm',
          items: [],
          draws: [{ title: 'Gone', bank: 'b', pick: 2, pointsEach: 1 }],
        },
        PLAIN,
      ),
      'bank.xml': bankXml('b', [], PLAIN, 'B'),
    };
    await writeFile(at('empty.zip'), zip(empty));
  });
  after(() => rm(folder, { recursive: true, force: true }));

  it('writes papers and keys in the order of versions, the same bytes for the same seed', async () => {
    for (const form of ['docx', 'html']) {
      const { said } = await versions('midterm-export.zip', ...usual(form, `one-${form}`));
      expect(said.written.map((p) => basename(p))).to.deep.equal(
        ['A', 'B', 'C'].flatMap((v) => [`version-${v}.${form}`, `version-${v}-key.${form}`]),
      );
      await versions('midterm-export.zip', ...usual(form, `two-${form}`));
      for (const path of said.written)
        expect(await readFile(join(at(`two-${form}`), basename(path)))).to.deep.equal(await readFile(path));
    }
  });

  it('says which item and choice stands where, as it is in what was written', async () => {
    const { said } = await versions('midterm-export.zip', ...usual('qti2.1', 'packages'));
    expect(said.versions.map((v) => v.name)).to.deep.equal(['A', 'B', 'C']);
    for (const [n, version] of said.versions.entries()) {
      const inspected = (await run('inspect', said.written[n]!, '--json')).json() as unknown as {
        quizzes: { items: number; title: string }[];
        items: { id: string; choices: { text: string }[] }[];
      };
      expect(inspected.quizzes[0]!.items).to.equal(version.items.length);
      expect(inspected.quizzes[0]!.title).to.equal(`Navigation midterm ${version.name}`);
      expect(inspected.items.map((i) => i.choices.length)).to.deep.equal(
        version.items.map((i) => i.choices.length),
      );
    }
    const other = await versions('midterm-export.zip', ...usual('qti2.1', 'other', 'row 2'));
    expect(other.said.versions).to.not.deep.equal(said.versions);
  });

  it('takes any text for a seed, and replaces nothing unless it is told to', async () => {
    const seed = '席 – «1» ١';
    expect((await versions('midterm-export.zip', ...usual('html', 'seeds', seed, '1'))).exit).to.be.below(2);
    const again = await versions('midterm-export.zip', ...usual('html', 'seeds', seed, '1'));
    expect([again.exit, again.said.error.code]).to.deep.equal([2, 'target-exists']);
    expect(
      (await versions('midterm-export.zip', ...usual('html', 'seeds', seed, '1'), '--force')).exit,
    ).to.be.below(2);
  });

  it('refuses what cannot be done with a clear error, and writes nothing', async () => {
    for (const [file, more, code] of [
      ['midterm-export.zip', usual('pdf', 'no'), 'target-unknown'],
      ['midterm-export.zip', usual('csv', 'no'), 'target-unknown'],
      ['midterm-export.zip', usual('html', 'no', 'x', '0'), 'usage'],
      ['midterm-export.zip', usual('html', 'no', 'x', 'three'), 'usage'],
      ['midterm-export.zip', [...usual('html', 'no'), '--page', 'A9'], 'usage'],
      ['empty.zip', usual('html', 'no'), 'draw-empty'],
      ['pilotage-week5.imscc', usual('html', 'no'), 'node-unknown'],
    ] as const) {
      const { exit, said } = await versions(file, ...more);
      expect([exit, said.error.code], JSON.stringify(more)).to.deep.equal([2, code]);
    }
    expect(await readdir(folder)).to.not.include('no');
  });
});
