import { cut } from '../../model/cut.ts';
import type { BlockDocument } from '../../document/block.ts';
import { fileStem } from '../../intake/paths.ts';
import { buildDocument, type Built } from '../../layout/items/document.ts';
import { takeAnswerLists, type AnswerList } from '../../layout/answerLists.ts';
import { confirmedFor, type Confirmed } from '../../layout/confirmed.ts';
import { sayLayout } from '../../layout/say.ts';
import { linesOf } from '../../layout/lines.ts';
import { recogniseDocument, type Recognised } from '../../layout/recognise.ts';
import { tablesInDocument } from '../../layout/table/inDocument.ts';
import { recogniseTable } from '../../layout/table/read.ts';
import { finding } from '../../model/finding.ts';
import type { DocumentReading, FileRef } from '../../model/holding.ts';
import { emptyDraft, type ReadingContext } from '../draft.ts';
import type { FileRead } from '../format.ts';

/**
 * Documents that belong together, as banks: a file of questions and one of their answers are one.
 */
export function readDocuments(
  documents: readonly BlockDocument[],
  context: ReadingContext,
  confirmed: Confirmed,
  tables: readonly RecognisedAs[] = [],
): FileRead {
  const { questions, answers } = sorted(documents);
  const pairs = pairedAnswers(questions, answers);
  const used = new Set([...pairs.values()].map((a) => a.document.path));
  for (const document of documents) for (const found of document.findings) context.add(found);
  const recognised = questions.flatMap((document) =>
    partsOf(document, confirmed, pairs.get(document)?.lists ?? []),
  );
  const read = readRecognised(tables.length === 0 ? recognised : byPath([...recognised, ...tables]), context);
  for (const answer of answers)
    if (!used.has(answer.document.path))
      context.add(
        finding(
          'answers-unpaired',
          'warning',
          { path: answer.document.path },
          { answers: answer.document.path },
        ),
      );
  return read;
}

/** A document understood, and each table of questions in it as one of its own. */
function partsOf(
  document: BlockDocument,
  confirmed: Confirmed,
  answers: readonly AnswerList[],
): RecognisedAs[] {
  const { tables, rest } = tablesInDocument(document);
  const found = tables.flatMap(({ name, title, rows }): RecognisedAs[] => {
    const place = `${document.path}!/${name}`;
    const recognised = recogniseTable(place, title, rows, confirmedFor(confirmed, place));
    return recognised ? [{ recognised, name: document.title || fileStem(document.path) }] : [];
  });
  const recognised = recogniseDocument(rest, { ...confirmedFor(confirmed, document.path), answers });
  if (found.length === 0) return [{ recognised, name: '' }];
  const left = rest.blocks.some((b) => b.kind === 'table' || b.heading === 0);
  return left ? [{ recognised, name: '', besides: true }, ...found] : found;
}

const byPath = (all: readonly RecognisedAs[]): RecognisedAs[] =>
  all.toSorted((a, b) =>
    a.recognised.document.path.localeCompare(b.recognised.document.path, 'en', { numeric: true }),
  );

/** What was understood, and what a bank goes by that has no title anywhere. */
export interface RecognisedAs {
  readonly recognised: Recognised;
  readonly name: string;
  /** Its questions stand in tables that are read by themselves; it needs none of its own. */
  readonly besides?: boolean;
}

/** What was understood, as banks of items. */
export function readRecognised(all: readonly RecognisedAs[], context: ReadingContext): FileRead {
  const draft = emptyDraft();
  const readings: DocumentReading[] = [];
  const files = new Map<string, FileRef>();
  let title = '';
  for (const { recognised, name, besides = false } of all) {
    const { document } = recognised;
    for (const file of document.files) files.set(file.path, file);
    const prefix = all.length > 1 ? `d${readings.length + 1}-` : '';
    const built = buildDocument(recognised, (bank, number, began) =>
      context.claim(
        'item',
        `${prefix}${bank > 0 ? `c${bank + 1}-` : ''}q${began === null ? number : `${number}-b${began}`}`,
      ),
    );
    context.onRecognised?.({ recognised, built });
    readings.push(readingOf(recognised, built));
    if (recognised.misfit)
      context.add(
        finding(
          'layout-misfit',
          'warning',
          { path: document.path },
          { said: sayLayout(recognised.misfit), found: sayLayout(recognised.layout) },
        ),
      );
    addBanks(draft, built, recognised, context, { prefix, name });
    for (const found of built.findings) context.add(found);
    title ||= built.title;
    noteUnread(built, document, context, besides);
  }
  return { draft, files: [...files.values()], title: all.length === 1 ? title : '', documents: readings };
}

function addBanks(
  draft: FileRead['draft'],
  built: Built,
  { document }: Recognised,
  context: ReadingContext,
  { prefix, name }: { prefix: string; name: string },
): void {
  for (const [at, bank] of built.banks.entries()) {
    for (const item of bank.items) draft.items.push({ item, path: document.path, rawId: item.id });
    const title = bank.title || document.title || name || fileStem(document.path);
    const id = context.claim('bank', `${prefix}bank-${at + 1}`);
    if (!bank.title && !document.title)
      context.add(finding('title-missing', 'note', { path: document.path, node: id }, { used: title }));
    draft.banks.push({
      id,
      rawId: id,
      title,
      metadata: [],
      origin: null,
      path: document.path,
      sections: [],
      refs: bank.items.map((i) => ({ by: 'id', item: i.id, weight: 1 })),
    });
  }
}

function noteUnread(
  { unread, banks }: Built,
  { path, findings }: BlockDocument,
  { add }: ReadingContext,
  besides: boolean,
): void {
  if (!besides && banks.every((b) => b.items.length === 0)) {
    if (!findings.some((f) => f.code === 'document-scanned'))
      add(finding('questions-none', 'error', { path }));
    return;
  }
  const [first] = unread;
  if (!first) return;
  const count = unread.reduce((sum, u) => sum + u.to - u.from + 1, 0);
  add(finding('blocks-unread', 'warning', { path }, { count, first: cut(first.text, 80) }));
}

const readingOf = ({ document, layout, by, looks }: Recognised, { unread }: Built): DocumentReading => ({
  path: document.path,
  layout,
  by,
  looks,
  blocks: document.blocks.at(-1)?.n ?? 0,
  unread,
});

interface AnswerFile {
  readonly document: BlockDocument;
  readonly lists: readonly AnswerList[];
}

/** Files that are nothing but a list of answers, and all others. */
function sorted(documents: readonly BlockDocument[]): { questions: BlockDocument[]; answers: AnswerFile[] } {
  if (documents.length < 2) return { questions: [...documents], answers: [] };
  const questions: BlockDocument[] = [];
  const answers: AnswerFile[] = [];
  for (const document of documents) {
    const lines = linesOf(document);
    const { lists, rest } = takeAnswerLists(lines, true);
    // A title or two may stand above the list; choices never do.
    const only =
      lists.length > 0 &&
      rest.length <= Math.max(3, lines.length * 0.15) &&
      !rest.some((l) => l.labels.some((x) => x.kind !== '1' && x.ordinal === 1));
    if (only && namesAnswers(lists)) answers.push({ document, lists });
    else questions.push(document);
  }
  return questions.length === 0 ? { questions: [...documents], answers: [] } : { questions, answers };
}

/** Short values, no question among them. */
function namesAnswers(lists: readonly AnswerList[]): boolean {
  const values = lists.flatMap((l) => l.entries.map((e) => e.value));
  const short = values.filter((v) => v.length <= 60 && !/[?؟？]|_{3}/u.test(v)).length;
  return short >= values.length * 0.9;
}

/** Which file of answers belongs to which of questions: by what their names share, and by the numbers they answer. */
function pairedAnswers(
  questions: readonly BlockDocument[],
  answers: readonly AnswerFile[],
): Map<BlockDocument, AnswerFile> {
  const out = new Map<BlockDocument, AnswerFile>();
  if (answers.length === 0) return out;
  const open = questions
    .map((document) => ({ document, items: recogniseDocument(document) }))
    .filter(({ items }) => items.items.length > 0 && items.keys.size < items.items.length * 0.5);
  for (const answer of answers) {
    const best = open
      .filter(({ document }) => !out.has(document))
      .map(({ document, items }) => ({
        document,
        fit: likeness(document.path, answer.document.path) + overlap(items, answer),
      }))
      .sort((a, b) => b.fit - a.fit)[0];
    if (best && best.fit > 0.5) out.set(best.document, answer);
  }
  return out;
}

function overlap({ items }: Recognised, { lists }: AnswerFile): number {
  const numbers = new Set(lists.flatMap((l) => l.entries.map((e) => e.number)));
  const met = items.filter((i, at) => numbers.has(i.label?.ordinal || at + 1)).length;
  return met / Math.max(1, items.length, numbers.size);
}

/** The share of words that two names have in common, numbers among them. */
function likeness(a: string, b: string): number {
  const words = (path: string): Set<string> =>
    new Set(
      (
        fileStem(path)
          .toLowerCase()
          .match(/\p{L}+|\p{Nd}+/gu) ?? []
      ).map((w) => w.replace(/^0+(?=\d)/u, '')),
    );
  const [x, y] = [words(a), words(b)];
  const shared = [...x].filter((w) => y.has(w)).length;
  const numbers = (set: Set<string>): string[] => [...set].filter((w) => /^\p{Nd}+$/u.test(w));
  const against = numbers(x).some((n) => numbers(y).length > 0 && !y.has(n));
  return against ? -1 : shared / Math.max(1, Math.min(x.size, y.size));
}
