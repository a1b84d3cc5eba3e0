/**
 * Makes the documents in tests/fixtures/documents with an office suite: what the corpus says, written by a program
 * that is not ours. Run it where `soffice` is installed: `node --import tsx scripts/fixtureDocuments.ts`.
 */
import { execFileSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join, resolve } from 'node:path';
import { corpus, type Case } from '../tests/support/documents/corpus.ts';
import { LANGUAGES } from '../tests/support/documents/truth.ts';

const target = resolve('tests/fixtures/documents');
const folder = mkdtempSync(join(tmpdir(), 'documents-'));
mkdirSync(target, { recursive: true });

const layouts = [...new Set(corpus().map((c) => c.layout))].filter((l) => l !== 'apart');
/** A layout in another language for each format, so that each is met in most of them. */
const languageOf = (layout: string, shift: number): string =>
  LANGUAGES[(layouts.indexOf(layout) + shift) % LANGUAGES.length]!.words.language;

async function convert(to: string, from: Case['format'], shift: number): Promise<void> {
  const chosen = corpus().filter(
    (c) =>
      c.format === from && c.layout !== 'apart' && c.language.words.language === languageOf(c.layout, shift),
  );
  const paths: string[] = [];
  for (const one of chosen) {
    const path = join(folder, `${to}-${one.name}`);
    writeFileSync(path, await one.write(one.laid.lines));
    paths.push(path);
  }
  const filter = to === 'docx' ? 'docx:MS Word 2007 XML' : to;
  execFileSync('soffice', ['--headless', '--convert-to', filter, '--outdir', target, ...paths], {
    stdio: 'inherit',
  });
}

await convert('odt', 'docx', 0);
await convert('pdf', 'docx', 1);
await convert('rtf', 'docx', 2);
await convert('docx', 'html', 3);
