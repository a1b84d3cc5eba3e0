import { readFile } from 'node:fs/promises';
import {
  allRepairs,
  changesScores,
  finding,
  FINDING_CODES,
  forecast,
  MAX_EDITS,
  mend as mendHolding,
  Refusal,
  sayEdit,
  sayRefusal,
  type Finding,
  type FindingCode,
  type Holding,
  type LossRepair,
  type Repair,
  type RefusedEdit,
} from '@alforja/core';
import { EXIT, exitFor, plainFinding, printFindings, printJson, type Exit } from './output.ts';
import { readSource } from './source.ts';
import { isPackageTarget, ownTarget, parseTarget, write, writeSeries } from './writing.ts';

interface Options {
  code?: string[];
  edits?: string;
  to?: string;
  output?: string;
  list?: boolean;
  yes?: boolean;
  force?: boolean;
  json?: boolean;
  rules?: string;
}

/** Reads a list of edits; what each of them is worth is found when they are applied. @throws Refusal when it is none */
export async function readEdits(path: string): Promise<readonly unknown[]> {
  const refuse = (detail: string): never => {
    throw new Refusal(finding('edits-unreadable', 'error', { path }, { detail }));
  };
  const text = await readFile(path, 'utf8').catch((error: NodeJS.ErrnoException) =>
    refuse(error.code ?? error.message),
  );
  let list: unknown = null;
  try {
    list = JSON.parse(text.replace(/^\uFEFF/u, ''));
  } catch (error) {
    refuse(`it is no JSON (${(error as Error).message})`);
  }
  if (!Array.isArray(list)) return refuse('it is no list');
  if (list.length > MAX_EDITS) return refuse(`it has ${list.length} edits, at most ${MAX_EDITS} are taken`);
  return list as readonly unknown[];
}

/** Lists repairs, or applies them, and edits, and writes what comes of it. The source is never touched. */
export async function mend(file: string, options: Options): Promise<Exit> {
  const edits = options.edits === undefined ? [] : await readEdits(options.edits);
  const { holding, bytes, name } = await readSource(file, options.rules, { edits });
  const target = options.to === undefined ? null : parseTarget(options.to);
  const losing = target === null || !isPackageTarget(target) ? null : target;
  const repairs = (of: Holding): readonly Repair[] =>
    allRepairs(of, losing).filter((r) => options.list || options.yes || !changesScores(r));
  if (options.list) {
    const losses = losing === null ? [] : forecast(holding, losing);
    return list(repairs(holding), [...holding.findings, ...losses], options.json ?? false);
  }
  if (options.output === undefined)
    throw new Refusal(finding('usage', 'error', {}, { detail: '-o OUT is missing (or --list)' }));
  const codes = codesFrom(options.code ?? []);
  const mended = mendHolding(holding, codes, edits, repairs);
  const to = target ?? ownTarget(holding.format);
  const { packages, findings } = await write(mended.holding, to, name, bytes);
  const all = [...mended.holding.findings, ...findings];
  const written = await writeSeries(options.output, packages, options.force ?? false);
  if (options.json)
    printJson({
      written,
      edits: mended.edits,
      refused: mended.refused.map(plainRefusal),
      findings: all.map(plainFinding),
    });
  else {
    process.stdout.write(`${written.join('\n')}\n`);
    for (const edit of mended.edits) process.stdout.write(`changed  ${edit.node ?? ''}: ${sayEdit(edit)}\n`);
    for (const { at, why } of mended.refused)
      process.stderr.write(`not changed: edit ${at + 1}: ${sayRefusal(why)}\n`);
    printFindings(all);
  }
  return mended.refused.length > 0 ? EXIT.found : exitFor(all);
}

export const plainRefusal = ({ edit, at, why }: RefusedEdit) => ({
  edit,
  at,
  code: why.refused,
  why: sayRefusal(why),
});

function list(repairs: readonly Repair[], findings: readonly Finding[], json: boolean): Exit {
  const said = repairs.map((r) => ({
    code: r.code,
    node: r.node,
    edits: r.edits,
    message: messageOf(r),
    ...('scores' in r ? { changesScores: changesScores(r), example: exampleOf(r as LossRepair) } : {}),
  }));
  if (json) printJson({ repairs: said, findings: findings.map(plainFinding) });
  else
    for (const { code, node, message } of said) process.stdout.write(`${code}  ${node ?? ''}  ${message}\n`);
  return exitFor(findings);
}

const exampleOf = ({ scores }: LossRepair) =>
  scores?.example
    ? { response: scores.example.response, from: scores.example.from, to: scores.example.to }
    : null;

const MOST_SAID = 5;
/** What a repair will do; of many edits the first few. */
function messageOf({ edits, ...rest }: Repair): string {
  const said = edits
    .slice(0, MOST_SAID)
    .map((e) => (e.node === undefined ? sayEdit(e) : `${e.node}: ${sayEdit(e)}`));
  const more = edits.length - said.length;
  const warned = changesScores({ edits, ...rest }) ? ['some answers score otherwise'] : [];
  return [...said, ...(more > 0 ? [`and ${more} more`] : []), ...warned].join('; ');
}

function codesFrom(given: readonly string[]): 'all' | ReadonlySet<FindingCode> {
  if (given.includes('all')) return 'all';
  for (const code of given)
    if (!(FINDING_CODES as readonly string[]).includes(code))
      throw new Refusal(finding('usage', 'error', {}, { detail: `there is no finding “${code}”` }));
  return new Set(given as FindingCode[]);
}
