import { familiesOf } from '../families/families.ts';
import type { DocumentReading, Holding, Item, Quiz } from '../model/holding.ts';
import { choicesOf } from '../model/options.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { optionText, stemText } from '../model/plainText.ts';
import { rubricPoints } from '../model/rubric.ts';
import { inOwnDraw, instructionsOf, quizPoints, setItems } from '../model/quizzes.ts';
import { placesOf } from '../model/places.ts';
import { kindOfShape, recognise, shapeIn, type Recognised } from '../scoring/recognise.ts';
import type { Tolerance } from '../scoring/shapes.ts';
import { keyTexts } from '../scoring/keyTexts.ts';
import { own } from '../model/own.ts';
import { speak } from './words.ts';

/** What `alforja inspect --json` prints: everything a holding contains, in plain values. */
export function inspectReport(holding: Holding) {
  const places = placesOf(holding.quizzes, holding.banks);
  const byId = new Map(holding.items.map((i) => [i.id, i]));
  return {
    source: holding.source,
    format: holding.format,
    title: holding.title,
    quizzes: holding.quizzes.map((quiz) => quizReport(quiz, byId)),
    banks: holding.banks.map((bank) => ({
      id: bank.id,
      title: bank.title,
      items: bank.items.length,
      categories: [...new Set(bank.items.map((id) => byId.get(id)?.category ?? null))].filter(
        (c) => c !== null,
      ),
    })),
    items: holding.items.map((item) => itemReport(item, places.get(item.id))),
    families: familiesOf(holding).map(({ id, title, items, varies }) => ({
      id,
      title,
      items: items.map((i) => i.id),
      varies,
    })),
    ...documentsReport(holding.documents ?? []),
    rubrics: holding.rubrics.map((r) => ({
      id: r.id,
      title: r.title,
      points: rubricPoints(r),
      mode: r.mode,
      criteria: r.criteria.map((c) => ({
        title: c.title,
        weight: c.weight,
        levels: c.levels.map((l) => ({
          title: l.title,
          points: l.points?.high ?? null,
          from: l.points?.low ?? null,
        })),
      })),
    })),
    links: holding.links.map(({ id, title, kind, url }) => ({ id, title, kind, url })),
    files: holding.files,
    findings: holding.findings.map((found) => {
      const { code, severity, message, where, hint, params } = speak(found);
      return { code, severity, message, where, hint, params };
    }),
  };
}

/** How documents were read: of one its layout alone, of several that of each. */
function documentsReport(documents: readonly DocumentReading[]) {
  const [first] = documents;
  if (!first) return {};
  return {
    layout: first.layout,
    ...(documents.length > 1
      ? { layouts: documents.map(({ path, layout, blocks }) => ({ path, blocks, layout })) }
      : {}),
    unread: documents.flatMap(({ path, unread }) =>
      unread.map((u) => (documents.length > 1 ? { path, ...u } : u)),
    ),
  };
}

function quizReport(quiz: Quiz, items: ReadonlyMap<string, Item>) {
  return {
    id: quiz.id,
    title: quiz.title,
    items: setItems(quiz),
    points: quizPoints(quiz, items),
    sections: quiz.sections.map((section) => ({
      title: section.title,
      items: section.items.filter((r) => !inOwnDraw(section, r.item)).length + (section.draw?.pick ?? 0),
      draw: section.draw
        ? {
            pick: section.draw.pick,
            of: section.draw.pool.length,
            pointsEach: section.draw.pointsEach,
            bank: section.draw.bank,
          }
        : null,
      shuffle: section.shuffle,
    })),
    settings: { ...quiz.settings, instructions: instructionsOf(quiz) },
  };
}

function itemReport(item: Item, place: { in: string[]; drawnBy: string[] } | undefined) {
  const recognised = recognise(item);
  const interactions = interactionsOf(item);
  return {
    id: item.id,
    title: item.title,
    stem: stemText(item),
    interactions: interactions.map((i) => i.kind),
    points: item.points,
    key: keyTexts(item, recognised),
    pointsExact: item.pointsExact,
    scoring: kindOfShape(item, recognised.shape),
    tolerance: toleranceOf(item, recognised),
    choices: choicesOf(item).map((c) => ({ id: c.id, text: optionText(c), fixed: c.fixed })),
    category: item.category,
    files: item.files,
    feedback: feedbackCount(item),
    in: place?.in ?? [],
    drawnBy: place?.drawnBy ?? [],
  };
}

function toleranceOf(item: Item, { shape, numbers }: Recognised): Tolerance | null {
  for (const response of item.responses) {
    const part = own(numbers, response.id) ?? shapeIn(shape, response.id);
    if (part?.kind === 'numeric' && part.tolerance) return part.tolerance;
  }
  return null;
}

/** Feedback elements of every sort: outside the body, and inside it. */
function feedbackCount(item: Pick<Item, 'body' | 'feedback'>): number {
  let inside = 0;
  const count = (nodes: Item['body']): void =>
    walk(nodes, (node) => {
      if (node.kind === 'feedback') inside += 1;
    });
  count(item.body);
  return item.feedback.length + inside;
}
