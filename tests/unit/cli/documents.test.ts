import { mkdtemp, readFile, rm, writeFile } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { expect } from 'chai';
import { LANGUAGES } from '../../support/documents/truth.ts';
import { LAYOUTS } from '../../support/documents/layouts.ts';
import { asDocx, asText } from '../../support/documents/writers.ts';
import { run } from './run.ts';

const REMARK = 'This is a remark of the author that belongs to nothing.';

interface Report {
  readonly format: Record<string, unknown>;
  readonly layout: Record<string, unknown> & { labels: Record<string, string> };
  readonly unread: { from: number; to: number; text: string }[];
  readonly banks: { title: string; items: number }[];
  readonly items: {
    id: string;
    key: string[];
    points: number;
    category: string | null;
    choices: unknown[];
  }[];
  readonly findings: { code: string; where: { node: string | null } }[];
}

describe('documents on the command line', () => {
  let folder = '';
  const at = (name: string): string => join(folder, name);
  const [english, spanish] = LANGUAGES;
  const inspect = async (...args: string[]): Promise<Report> =>
    (await run('inspect', ...args, '--json')).json() as unknown as Report;
  before(async () => {
    folder = await mkdtemp(join(tmpdir(), 'alforja-documents-'));
    await writeFile(
      at('chapter.docx'),
      await asDocx(LAYOUTS['automatic-bold']!(english!).lines, english!.words),
    );
    await writeFile(at('labelled.txt'), asText(LAYOUTS['labelled']!(spanish!).lines, spanish!.words));
    await writeFile(
      at('loose.txt'),
      `${asText(LAYOUTS['one-line']!(english!).lines, english!.words)}\n\n${REMARK}\n`,
    );
  });
  after(() => rm(folder, { recursive: true, force: true }));

  it('says how a document is laid out, and lists what is in nothing', async () => {
    const report = await inspect(at('chapter.docx'));
    expect(report.format).to.deep.equal({ container: 'docx', standard: 'document', version: null });
    expect(report.layout).to.include({ question: '1.', choice: 'a.', key: 'mark bold' });
    expect(report.layout['sure']).to.be.within(0.8, 1);
    expect(report.unread).to.deep.equal([]);
    const { unread, items } = await inspect(at('loose.txt'));
    expect(items).to.have.length(6);
    expect(unread).to.have.length(1);
    expect(unread[0]!.text).to.contain('a remark of the author');
  });

  it('reads by a confirmed layout: a label that means something else, a key that is elsewhere', async () => {
    const before = await inspect(at('labelled.txt'));
    expect(before.items[0]).to.include({ category: null, points: 2 });
    const layout = {
      ...before.layout,
      labels: { ...before.layout.labels, Dificultad: 'category', puntos: 'noted' },
    };
    await writeFile(at('layout.json'), JSON.stringify(layout));
    const after = await inspect(at('labelled.txt'), '--layout', at('layout.json'));
    expect(after.items.map((i) => i.category))
      .to.include('fácil')
      .and.to.include('difícil');
    expect(after.items.map((i) => i.points)).to.deep.equal(after.items.map(() => 1));
    expect(after.items.map((i) => i.key)).to.deep.equal(before.items.map((i) => i.key));
    await writeFile(at('none.json'), JSON.stringify({ ...before.layout, key: 'none' }));
    const unkeyed = await inspect(at('labelled.txt'), '--layout', at('none.json'));
    expect(unkeyed.findings.filter((f) => f.code === 'key-missing').length).to.be.at.least(6);
    await writeFile(at('bad.json'), '{"question": 1}');
    expect((await run('inspect', at('labelled.txt'), '--layout', at('bad.json'), '--json')).exit).to.equal(2);
  });

  it('reads by what was said of single blocks, and by layouts that were saved elsewhere', async () => {
    const edits = [{ op: 'block', path: 'loose.txt', block: 1, to: 'aside' }];
    const { unread } = await inspect(at('loose.txt'));
    await writeFile(
      at('edits.json'),
      JSON.stringify([{ ...edits[0], block: unread[0]!.from, to: 'feedback' }]),
    );
    const mended = await run(
      'mend',
      at('loose.txt'),
      '--edits',
      at('edits.json'),
      '--to',
      'qti3.0',
      '-o',
      at('mended.zip'),
      '--json',
    );
    const { refused, findings } = mended.json() as unknown as {
      refused: unknown[];
      findings: { code: string }[];
    };
    expect(refused).to.deep.equal([]);
    expect(findings.map((f) => f.code)).not.to.include('blocks-unread');
    const before = await inspect(at('labelled.txt'));
    const layout = { ...before.layout, labels: { ...before.layout.labels, Dificultad: 'category' } };
    const looks = [
      `question ${String(before.layout['question'])}`,
      `choice ${String(before.layout['choice'])}`,
      ...Object.keys(layout.labels)
        .map((l) => `line ${l.toLowerCase()}`)
        .sort(),
    ];
    await writeFile(at('rules.json'), JSON.stringify({ layouts: [{ name: 'Mine', looks, layout }] }));
    const known = await inspect(at('labelled.txt'), '--rules', at('rules.json'));
    expect(known.items.map((i) => i.category)).to.include('fácil');
    await writeFile(at('norules.json'), JSON.stringify({ layouts: [{ name: 'Mine', looks }] }));
    expect((await run('inspect', at('labelled.txt'), '--rules', at('norules.json'), '--json')).exit).to.equal(
      2,
    );
  });

  it('writes a bank as a document or a table, and reads it back whole', async () => {
    const keys = (await inspect(at('chapter.docx'))).items.map((i) => i.key);
    for (const [target, name] of [
      ['docx', 'out.docx'],
      ['text', 'out.txt'],
      ['csv', 'out.csv'],
      ['xlsx', 'out.xlsx'],
    ] as const) {
      const { json } = await run('convert', at('chapter.docx'), '--to', target, '-o', at(name), '--json');
      expect((json() as unknown as { written: string[] }).written, target).to.deep.equal([at(name)]);
      const back = await inspect(at(name));
      expect(
        back.items.map((i) => i.key),
        target,
      ).to.deep.equal(keys);
    }
    expect(await readFile(at('out.txt'), 'utf8')).to.match(/^1\. Which light .* \(1 point\)$/mu);
    const { exit } = await run('convert', at('chapter.docx'), '--to', 'docx', '-o', at('out.docx'), '--json');
    expect(exit).to.equal(2);
  });

  it('makes a package of a document that compares intact with it', async () => {
    expect(
      (await run('convert', at('chapter.docx'), '--to', 'qti2.2', '-o', at('bank.zip'), '--json')).exit,
    ).to.equal(0);
    const { json } = await run('compare', at('chapter.docx'), at('bank.zip'), '--json');
    expect(json()).to.deep.include({ verdict: 'intact' });
  });
});
