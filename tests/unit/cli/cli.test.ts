import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { compareHoldings, HeldItem, inspectReport, type Holding } from '@alforja/core';
import { readSource } from '../../../cli/src/source.ts';
import { largePackage } from '../../../demo/large.ts';
import { demoFiles } from '../../../demo/packages.ts';
import { run } from './run.ts';

describe('the command line', () => {
  let folder = '';
  const at = (name: string): string => join(folder, name);
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'alforja-cli-'));
    for (const file of demoFiles()) await writeFile(at(file.name), file.bytes);
    await writeFile(at('rubbish.txt'), 'hello');
    await writeFile(at('empty.zip'), '');
  });
  after(() => rm(folder, { recursive: true, force: true }));

  it('inspects: one JSON document with the fields of the contract', async () => {
    const { exit, json } = await run('inspect', at('pilotage-week5.imscc'), '--json');
    expect(exit).to.equal(0);
    const report = json() as unknown as { items: Record<string, unknown>[] } & Record<string, unknown>;
    expect(report).to.include.all.keys(
      'source',
      'format',
      'quizzes',
      'banks',
      'items',
      'rubrics',
      'links',
      'files',
      'findings',
    );
    const item = report.items.find((i) => i['id'] === 'tide-02');
    expect(item).to.deep.include({
      interactions: ['textEntry'],
      points: 3,
      key: ['3.3'],
      scoring: 'numeric',
      in: ['tidal-exam'],
      drawnBy: [],
    });
    expect(item!['tolerance']).to.deep.equal({
      mode: 'range',
      low: 3.2,
      high: 3.4,
      includesLow: true,
      includesHigh: true,
    });
  });

  it('says of items that lie packed what it says of trees', async () => {
    await writeFile(at('many.zip'), largePackage(300));
    const [trees, packed] = await Promise.all(
      [300, 20].map((count) => readSource(at('many.zip'), undefined, { trees: count })),
    );
    const said = (of: Holding) => JSON.stringify([inspectReport(of), compareHoldings(of, trees!.holding)]);
    expect(packed!.holding.items.filter((i) => HeldItem.isOne(i))).to.have.length(280);
    expect(said(packed!.holding)).to.equal(said(trees!.holding));
  });

  it('exits with 1 where findings are errors', async () => {
    expect((await run('inspect', at('chartwork-broken.zip'), '--json')).exit).to.equal(1);
  });

  const refusals: [what: string, args: string[], code: string][] = [
    ['no such file', ['inspect', '/nowhere/x.zip'], 'file-unreadable'],
    ['an empty file', ['inspect', '@empty.zip'], 'file-empty'],
    ['an unknown command', ['explode'], 'usage'],
    [
      'an unknown target',
      ['convert', '@distance-drill.zip', '--to', 'odt', '-o', '@x.zip'],
      'target-unknown',
    ],
    [
      'an unknown id',
      ['convert', '@distance-drill.zip', '--to', 'qti2.1', '--only', 'nope', '-o', '@x.zip'],
      'node-unknown',
    ],
    ['an unknown item', ['score', '@distance-drill.zip', 'nope'], 'node-unknown'],
    [
      'an unknown response',
      ['score', '@distance-drill.zip', 'std-01', '--response', 'X=1'],
      'response-unknown',
    ],
    [
      'an unknown choice',
      ['score', '@pilotage-week5.imscc', 'tide-01', '--response', 'response1=Z'],
      'choice-unknown',
    ],
  ];
  for (const [what, args, code] of refusals) {
    it(`does not do it and exits with 2: ${what}`, async () => {
      const given = args.map((a) => (a.startsWith('@') ? at(a.slice(1)) : a));
      const { exit, json } = await run(...given, '--json');
      expect(exit).to.equal(2);
      expect((json() as unknown as { error: { code: string; message: string } }).error.code).to.equal(code);
      const plain = await run(...given);
      expect(plain.err).to.not.match(/\n\s+at /u);
      expect(plain.err).to.not.equal('');
    });
  }

  it('converts a part, with what it needs, and never over an existing file by itself', async () => {
    const target = at('part.zip');
    const args = [
      'convert',
      at('midterm-export.zip'),
      '--to',
      'qti2.1',
      '--only',
      'midterm',
      '-o',
      target,
      '--json',
    ];
    const { exit, json } = await run(...args);
    expect(exit).to.be.oneOf([0, 1]);
    expect(json()).to.deep.include({ written: [target] });
    const { json: inside } = await run('inspect', target, '--json');
    const report = inside() as unknown as { quizzes: { items: number }[]; banks: { items: number }[] };
    expect(report.quizzes.map((q) => q.items)).to.deep.equal([17]);
    expect(report.banks.map((b) => b.items)).to.deep.equal([12, 9]);
    const before = await readFile(target);
    const again = await run(...args);
    expect(again.exit).to.equal(2);
    expect((again.json() as unknown as { error: { code: string } }).error.code).to.equal('target-exists');
    expect(await readFile(target)).to.deep.equal(before);
    expect((await run(...args, '--force')).exit).to.equal(exit);
  });

  it('leaves no partial file when it cannot write', async () => {
    const { exit } = await run(
      'convert',
      at('distance-drill.zip'),
      '--to',
      'qti2.1',
      '-o',
      at('no/such/folder.zip'),
      '--json',
    );
    expect(exit).to.equal(2);
    expect((await readdir(folder)).filter((f) => f.includes('partial'))).to.deep.equal([]);
  });

  it('compares: intact with itself, and says what came back altered', async () => {
    const same = await run('compare', at('pilotage-week5.imscc'), at('pilotage-week5.imscc'), '--json');
    expect([same.exit, (same.json() as unknown as { verdict: string }).verdict]).to.deep.equal([0, 'intact']);
    const { exit, json } = await run(
      'compare',
      at('pilotage-week5.imscc'),
      at('pilotage-came-back.imscc'),
      '--json',
    );
    const report = json() as unknown as {
      verdict: string;
      counts: unknown;
      pairs: {
        source: string;
        by: string;
        differences: { facet: string; example: { from: number; to: number } | null }[];
      }[];
      missing: { id: string }[];
      extra: { id: string }[];
    };
    expect(exit).to.equal(1);
    expect(report.verdict).to.equal('incomplete');
    expect(report.counts).to.deep.equal({ intact: 28, altered: 4, missing: 1, extra: 1 });
    const facets = Object.fromEntries(
      report.pairs
        .filter((p) => p.differences.length > 0)
        .map((p) => [p.source, p.differences.map((d) => d.facet)]),
    );
    expect(facets).to.deep.equal({
      'tide-01': ['key'],
      'tide-02': ['tolerance'],
      'tide-04': ['files'],
      'tide-05': ['points'],
    });
    const tolerance = report.pairs.find((p) => p.source === 'tide-02')!.differences[0]!.example!;
    expect([tolerance.from, tolerance.to]).to.deep.equal([3, 0]);
    expect([report.missing.map((m) => m.id), report.extra.map((m) => m.id)]).to.deep.equal([
      ['tide-07'],
      ['q_7799'],
    ]);
  });

  it('scores answers in points', async () => {
    const score = async (...responses: string[]): Promise<unknown> => {
      const { json } = await run(
        'score',
        at('pilotage-week5.imscc'),
        'tide-03',
        '--json',
        ...responses.flatMap((r) => ['--response', r]),
      );
      return json();
    };
    expect(await score()).to.deep.include({ score: 0, maximum: 2 });
    expect(await score('response1=A', 'response1=C')).to.deep.include({ score: 2, maximum: 2 });
    expect(await score('response1=A', 'response1=B', 'response1=C')).to.deep.include({ score: 1 });
  });
});
