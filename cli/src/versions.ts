import { existsSync } from 'node:fs';
import { mkdir } from 'node:fs/promises';
import { join } from 'node:path';
import {
  fileReader,
  finding,
  MAX_VERSIONS,
  Refusal,
  TARGETS,
  versionHolding,
  versionsOf,
  versionTable,
  withEmbedded,
  writeHolding,
  type Finding,
  type Holding,
  type Quiz,
  type Target,
  type Version,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import {
  keyDocx,
  keyHtml,
  keyOf,
  PAPER_STYLE,
  paperDocx,
  paperHtml,
  paperOf,
  type Head,
  type PaperStyle,
} from '@alforja/core/paper';
import { wholeNumber } from './numbers.ts';
import { exitFor, plainFinding, printFindings, printJson, type Exit } from './output.ts';
import { oneNamed, readSource } from './source.ts';
import { targetAmong, writeFiles } from './writing.ts';

interface Options {
  quiz: string;
  count: string;
  seed: string;
  to: string;
  output: string;
  page?: string;
  large?: boolean;
  plain?: boolean;
  course?: string;
  date?: string;
  force?: boolean;
  json?: boolean;
  rules?: string;
}

type Form = Target | 'docx' | 'html';
const FORMS: readonly Form[] = [...TARGETS, 'docx', 'html'];

interface Made {
  readonly files: readonly { readonly name: string; readonly bytes: Uint8Array }[];
  readonly findings: readonly Finding[];
}

/** Writes versions of a quiz as packages, or as papers with their keys, into a folder. */
export async function versions(file: string, options: Options): Promise<Exit> {
  const form = targetAmong(FORMS, options.to);
  const count = wholeNumber('--count', options.count, MAX_VERSIONS);
  const style = styleFrom(options);
  const { holding, bytes, name } = await readSource(file, options.rules);
  const quiz = oneNamed(holding.quizzes, options.quiz);
  const empty = quiz.sections.find((s) => s.draw && s.draw.pool.length === 0);
  if (empty)
    throw new Refusal(
      finding('draw-empty', 'error', { node: quiz.id, path: name }, { section: empty.title || empty.id }),
    );
  const made = versionsOf(holding, quiz, count, options.seed);
  const read = withEmbedded(holding, await fileReader(name, bytes, nodePlatform));
  const head: Head = { course: options.course ?? '', date: options.date ?? '' };
  const written: Made[] = [];
  for (const version of made.versions)
    written.push(
      form === 'docx' || form === 'html'
        ? await onPaper(holding, quiz, version, form, style, head, read)
        : asPackage(holding, version, form, read),
    );
  const all = [...holding.findings, ...made.findings, ...once(written.flatMap((w) => w.findings))];
  const paths = await intoFolder(
    options.output,
    written.flatMap((w) => w.files),
    options.force ?? false,
  );
  const said = made.versions.map((v) => ({
    name: v.name,
    seed: v.seed,
    points: v.points,
    items: versionTable(v),
  }));
  if (options.json)
    printJson({ written: paths, versions: said, sharing: made.sharing, findings: all.map(plainFinding) });
  else {
    for (const v of said)
      process.stdout.write(`version ${v.name}: ${v.items.length} items, ${v.points} points\n`);
    for (const { versions: pair, items } of made.sharing)
      process.stdout.write(`${pair.join(' and ')} share ${items.shared} items (at least ${items.least})\n`);
    process.stdout.write(`${paths.join('\n')}\n`);
    printFindings(all);
  }
  return exitFor(all);
}

type ReadFile = (path: string) => Uint8Array | null;

function asPackage(holding: Holding, version: Version, target: Target, read: ReadFile): Made {
  const { packages, findings } = writeHolding(versionHolding(holding, version), target, read, nodePlatform);
  const ending = target.startsWith('cc') ? 'imscc' : 'zip';
  const files = packages.map((bytes, at) => ({
    name: `version-${version.name}${packages.length > 1 ? `-${at + 1}` : ''}.${ending}`,
    bytes,
  }));
  return { files, findings };
}

async function onPaper(
  holding: Holding,
  quiz: Quiz,
  version: Version,
  form: 'docx' | 'html',
  style: PaperStyle,
  head: Head,
  read: ReadFile,
): Promise<Made> {
  const title = quiz.title || quiz.id;
  const { made: paper, findings } = paperOf(version, title, head);
  const key = keyOf(version, title, holding.rubrics, head);
  const text = (page: string): Uint8Array => new TextEncoder().encode(page);
  const [paperBytes, keyBytes] =
    form === 'html'
      ? [text(paperHtml(paper, style, read)), text(keyHtml(key, style, read))]
      : [await paperDocx(paper, style, read), await keyDocx(key, style, read)];
  const name = `version-${version.name}`;
  return {
    files: [
      { name: `${name}.${form}`, bytes: paperBytes },
      { name: `${name}-key.${form}`, bytes: keyBytes },
    ],
    findings,
  };
}

/** What several versions lose alike is said once. */
function once(findings: readonly Finding[]): Finding[] {
  const seen = new Map(findings.map((f) => [JSON.stringify([f.code, f.where, f.params]), f]));
  return [...seen.values()];
}

function styleFrom({ page = 'A4', large, plain }: Options): PaperStyle {
  const size = (['A4', 'Letter'] as const).find((s) => s.toLowerCase() === page.toLowerCase());
  if (!size)
    throw new Refusal(finding('usage', 'error', {}, { detail: `--page is A4 or Letter, not “${page}”` }));
  return { ...PAPER_STYLE, size, large: large ?? false, plain: plain ?? false };
}

async function intoFolder(folder: string, files: Made['files'], force: boolean): Promise<string[]> {
  if (!existsSync(folder))
    await mkdir(folder, { recursive: true }).catch((error: NodeJS.ErrnoException) => {
      throw new Refusal(
        finding('file-unreadable', 'error', { path: folder }, { detail: error.code ?? error.message }),
      );
    });
  return writeFiles(
    files.map(({ name, bytes }) => ({ path: join(folder, name), bytes })),
    force,
  );
}
