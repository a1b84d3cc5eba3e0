import { strToU8, zipSync, type Zippable } from 'fflate';
import Papa from 'papaparse';
import {
  answerTexts,
  choicesOf,
  fairnessOf,
  feedbackShown,
  fileReader,
  fileStem,
  keyTexts,
  letterOf,
  metTwice,
  nameOf,
  quizItems,
  recognise,
  seedOf,
  setFor,
  simulate,
  sit,
  speak,
  versionHolding,
  versionsOf,
  versionTable,
  withEmbedded,
  writeHolding,
  type Holding,
  type Item,
  type Quiz,
  type Target,
  type Version,
  FORMULA_START,
} from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import type { Head, PaperStyle } from '@alforja/core/paper';
import type { Attempts, FairView, SatView, SetView, VersionsView } from '../../shared/quizzes.ts';
import { readStored } from '../store/files.ts';
import { packageById } from '../store/packages.ts';
import { load } from './holdings.ts';
import type { Progress } from './progress.ts';

export interface QuizAsked {
  readonly packageId: string;
  readonly quizId: string;
  readonly seed: string;
}
export interface SitAsked extends QuizAsked {
  readonly attempts: Attempts;
  /** Whether it has been handed in: only then answers and keys are told. */
  readonly over: boolean;
}
export interface VersionsAsked extends QuizAsked {
  readonly count: number;
}
export interface PaperAsked extends VersionsAsked {
  readonly form: Target | 'docx' | 'html';
  /** One of the versions, and which sheet of it; all of them, as an archive, where it is null. */
  readonly only: { readonly version: string; readonly sheet: 'paper' | 'key' } | null;
  readonly style: PaperStyle;
  readonly head: Head;
}
export interface Made {
  readonly name: string;
  readonly bytes: Uint8Array;
}

async function open(asked: QuizAsked, progress: Progress): Promise<{ holding: Holding; quiz: Quiz }> {
  const holding = await load(asked.packageId, progress);
  const quiz = holding.quizzes.find((q) => q.id === asked.quizId);
  if (!quiz) throw new Error('There is no such quiz any more.');
  return { holding, quiz };
}

/** What a candidate is set. */
export async function quizSet(asked: QuizAsked, progress: Progress): Promise<SetView> {
  const { holding, quiz } = await open(asked, progress);
  return {
    seed: asked.seed,
    sections: quiz.sections.map(({ title, instructions }) => ({ title, instructions })),
    items: setFor(quiz, holding.items, seedOf(asked.seed)).map(({ delivered, item, ...rest }) => {
      const { scoring: _scoring, ...shown } = item;
      return { ref: delivered.ref, ...rest, item: shown };
    }),
  };
}

/** What a candidate's answers come to. */
export async function quizSit(asked: SitAsked, progress: Progress): Promise<SatView> {
  const { holding, quiz } = await open(asked, progress);
  const seed = seedOf(asked.seed);
  const attempts = new Map(asked.attempts);
  const sat = sit(quiz, holding.items, seed, attempts);
  return {
    total: sat.total,
    points: sat.items.reduce((sum, i) => sum + i.points, 0),
    passed: sat.passed,
    items: sat.items.map(({ set, ref, item: id, score, points, presented, done, result }) => {
      const given = attempts.get(id)?.at(-1);
      const told = given !== undefined && (asked.over || set.told);
      const recognised = asked.over ? recognise(set.item) : null;
      return {
        ref,
        score,
        points,
        presented,
        done,
        feedback: told ? feedbackShown(set.item, result.outcomes) : [],
        answer: asked.over && given ? answerTexts(set.item, given) : [],
        key: recognised ? keyTexts(set.item, recognised) : [],
        byHand: recognised?.shape.kind === 'manual',
      };
    }),
  };
}

/** What the draws make of a quiz. */
export async function quizDraws(asked: QuizAsked, progress: Progress): Promise<FairView> {
  const { holding, quiz } = await open(asked, progress);
  progress('Counting the draws', 0, 0);
  const fair = fairnessOf(quiz, holding.items, asked.seed);
  const at = new Map(holding.items.map((i, seq) => [i.id, { seq, name: nameOf(i) }]));
  const reached = fair.met.length > MOST_TRIED ? null : reachedIn({ holding, quiz }, asked.seed);
  const SURE = 1 - 1e-9;
  const rare = fair.met.filter((m) => m.chance < SURE).sort((a, b) => a.chance - b.chance);
  return {
    exact: fair.exact,
    candidates: fair.candidates,
    seed: fair.seed,
    total: fair.total,
    minutes: fair.minutes,
    shared: fair.shared,
    categories: fair.categories,
    met: rare.map(({ item, chance }) => ({ ...at.get(item)!, chance })),
    everybody: fair.met.length - rare.length,
    twice: metTwice(quiz, holding.items).map(({ items: [a, b], because, chance }) => ({
      names: [at.get(a)!.name, at.get(b)!.name],
      because,
      chance,
    })),
    reached,
  };
}

/** Every answer worth trying of so many questions is run once for simulated candidates. */
const MOST_TRIED = 2000;

function reachedIn(side: { holding: Holding; quiz: Quiz }, seed: string): FairView['reached'] {
  const partners = new Map(quizItems(side.quiz).map((id) => [id, id]));
  const { totals, candidates } = simulate(side, side, partners, { seed });
  return { totals: totals.source, candidates, seed };
}

/** Which item and choice stands where in each version. */
export async function quizVersions(asked: VersionsAsked, progress: Progress): Promise<VersionsView> {
  const { holding, quiz } = await open(asked, progress);
  const made = versionsOf(holding, quiz, asked.count, asked.seed);
  const at = new Map(holding.items.map((item, seq) => [item.id, { item, seq }]));
  return {
    versions: made.versions.map((v) => ({
      name: v.name,
      seed: v.seed,
      points: v.points,
      items: versionTable(v).map(({ id, choices }) => {
        const { item, seq } = at.get(id)!;
        return { seq, name: nameOf(item), choices: lettersOf(item, choices) };
      }),
    })),
    sharing: made.sharing.map(({ versions, items, places, choices }) => ({
      versions,
      items: [items.shared, items.least],
      places: [places.shared, places.least],
      choices: [choices.shared, choices.least],
    })),
    findings: made.findings.map(speak),
  };
}

/** Choices by the letters they have in the quiz: "C A D B". */
function lettersOf(item: Item, choices: readonly string[]): string {
  const before = choicesOf(item).map((c) => c.id);
  return choices.map((id) => letterOf(Math.max(0, before.indexOf(id)))).join(' ');
}

/** Versions on paper or as packages. */
export async function quizPaper(asked: PaperAsked, progress: Progress): Promise<Made> {
  const { holding, quiz } = await open(asked, progress);
  const held = (await packageById(asked.packageId))!;
  const bytes = await readStored(held.sha256);
  const read = withEmbedded(holding, await fileReader(held.name, bytes, nodePlatform));
  const { versions } = versionsOf(holding, quiz, asked.count, asked.seed);
  const { only } = asked;
  const wanted = only ? versions.filter((v) => v.name === only.version) : versions;
  const files: Made[] = [];
  for (const [n, version] of wanted.entries()) {
    progress(`Version ${version.name}`, n, wanted.length);
    files.push(...(await filesOf({ holding, quiz }, version, asked, read)));
  }
  const [first] = files;
  if (only && first) return first;
  const entries: Zippable = {};
  for (const { name, bytes: content } of files) entries[name] = [content, { mtime: ENTRY_DATE }];
  if (asked.form !== 'docx' && asked.form !== 'html')
    entries['versions.csv'] = strToU8('\uFEFF' + tableCsv(versions));
  return { name: `${fileStem(held.name)}-versions.zip`, bytes: zipSync(entries) };
}

const ENTRY_DATE = new Date(2000, 0, 1);

async function filesOf(
  { holding, quiz }: { holding: Holding; quiz: Quiz },
  version: Version,
  { form, only, style, head }: PaperAsked,
  read: (path: string) => Uint8Array | null,
): Promise<Made[]> {
  const named = `version-${version.name}`;
  if (form !== 'docx' && form !== 'html') {
    const { packages } = writeHolding(versionHolding(holding, version), form, read, nodePlatform);
    const ending = form.startsWith('cc') ? 'imscc' : 'zip';
    return packages.map((bytes, at) => ({
      name: `${named}${packages.length > 1 ? `-${at + 1}` : ''}.${ending}`,
      bytes,
    }));
  }
  const { keyDocx, keyHtml, keyOf, paperDocx, paperHtml, paperOf } = await import('@alforja/core/paper');
  const title = quiz.title || quiz.id;
  const made: Made[] = [];
  if (only?.sheet !== 'key') {
    const { made: paper } = paperOf(version, title, head);
    const bytes =
      form === 'html' ? strToU8(paperHtml(paper, style, read)) : await paperDocx(paper, style, read);
    made.push({ name: `${named}.${form}`, bytes });
  }
  if (only?.sheet !== 'paper') {
    const key = keyOf(version, title, holding.rubrics, head);
    const bytes = form === 'html' ? strToU8(keyHtml(key, style, read)) : await keyDocx(key, style, read);
    made.push({ name: `${named}-key.${form}`, bytes });
  }
  return made;
}

/** The table of versions beside packages: which item stands at which number. */
function tableCsv(versions: readonly Version[]): string {
  const rows = versions.flatMap((v) =>
    versionTable(v).map(({ id, choices }, at) => [v.name, at + 1, id, choices.join(' ')]),
  );
  return Papa.unparse([['version', 'number', 'item', 'choices'], ...rows], {
    escapeFormulae: FORMULA_START,
    newline: '\r\n',
  });
}
