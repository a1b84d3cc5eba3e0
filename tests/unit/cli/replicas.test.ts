import { mkdtemp, readdir, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { distanceItem, sideItem } from '../../support/parameters.ts';
import { itemXml21, SCORE21 } from '../../support/read.ts';
import { run } from './run.ts';

describe('alforja replicas', () => {
  let folder = '';
  const at = (name: string): string => join(folder, name);
  const replicas = (file: string, item: string, ...more: string[]) =>
    run('replicas', at(file), '--item', item, '--seed', 'term 2', '--to', 'qti2.1', ...more, '--json');
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'alforja-replicas-'));
    await writeFile(at('run.xml'), distanceItem());
    await writeFile(at('side.xml'), sideItem());
    await writeFile(at('plain.xml'), itemXml21('plain', `${SCORE21}<itemBody><p>Why?</p></itemBody>`));
  });
  after(() => rm(folder, { recursive: true, force: true }));

  it('writes as many as asked for as one bank, the same bytes for the same seed', async () => {
    const one = await replicas('run.xml', 'Distance run', '--count', '6', '-o', at('one.zip'));
    expect(one.exit).to.equal(0);
    const said = one.json() as unknown as {
      written: string[];
      replicas: { id: string; values: Record<string, number>; key: string[]; proved: number }[];
    };
    expect(said.written).to.deep.equal([at('one.zip')]);
    expect(said.replicas).to.have.length(6);
    for (const r of said.replicas) {
      expect(r.key).to.deep.equal([String(r.values['D'])]);
      expect(r.proved).to.be.greaterThan(3);
    }
    await replicas('run.xml', 'run', '--count', '6', '-o', at('two.zip'));
    expect(await readFile(at('two.zip'))).to.deep.equal(await readFile(at('one.zip')));
    const inspected = (await run('inspect', at('one.zip'), '--json')).json() as unknown as {
      banks: { title: string; items: number }[];
      items: { key: string[] }[];
    };
    expect(inspected.banks.map((b) => [b.title, b.items])).to.deep.equal([['Distance run', 6]]);
    expect(inspected.items.map((i) => i.key)).to.deep.equal(said.replicas.map((r) => r.key));
  });

  it('says that there are fewer, and still writes them', async () => {
    const { exit, json } = await replicas('side.xml', 'side', '--count', '4', '-o', at('few.zip'));
    expect(exit).to.equal(0);
    const said = json() as unknown as { replicas: unknown[]; findings: { code: string }[] };
    expect(said.replicas).to.have.length(2);
    expect(said.findings.map((f) => f.code)).to.include('replicas-few');
  });

  it('refuses what cannot be done, and writes nothing', async () => {
    for (const [file, item, count, code] of [
      ['plain.xml', 'plain', '2', 'item-without-templates'],
      ['run.xml', 'nobody', '2', 'node-unknown'],
      ['run.xml', 'run', 'many', 'usage'],
      ['run.xml', 'run', '0', 'usage'],
    ] as const) {
      const { exit, json } = await replicas(file, item, '--count', count, '-o', at('not.zip'));
      expect([exit, (json() as unknown as { error: { code: string } }).error.code]).to.deep.equal([2, code]);
    }
    expect(await readdir(folder)).not.to.include('not.zip');
  });
});
