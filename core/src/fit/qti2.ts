import { lostDates } from './losses.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Standard } from '../model/content.ts';
import type { Holding, Item } from '../model/holding.ts';
import type { TestItemRef, TestSection, TestStructure } from '../model/testStructure.ts';
import { joinRows } from '../scoring/rows.ts';
import { outcome } from '../model/make.ts';
import { itemWeights } from '../model/places.ts';
import { recognise } from '../scoring/recognise.ts';
import { near, plainNumber } from '../model/number.ts';
import { ItemFits } from './itemFits.ts';
import { identifierMaker, renameItem } from './rewrite.ts';
import { exact, scaleProgram } from './scale.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { own } from '../model/own.ts';
import { placeOf } from '../model/origin.ts';

/** Fields whose meaning the tree carries, so that leaving them out loses nothing. */
const SAID_ELSEWHERE =
  /^(?:cc_|qmd_(?:itemtype|weighting|maximumscore|computerscored|scoringpermitted|assessmenttype|scoretype|timelimit|topic|status|feedbackpermitted|hintspermitted|solutionspermitted)|bank_title|timedependent$|label$|toolname$|toolversion$)/iu;

type Version = '2.1' | '2.2' | '3.0';
const standardOf = (version: Version): Standard => (version === '3.0' ? 'qti3' : 'qti2');

export interface Fitted2 {
  /** With its quizzes and banks fitted; its items are fitted one by one. */
  readonly holding: Holding;
  readonly items: ItemFits<Item>;
  /** The identifier that an item of the holding is given. */
  readonly itemId: (id: string) => string;
  /** What is lost: of items, in their order, then of what holds them. */
  readonly findings: () => Finding[];
}

/**
 * Makes a holding sayable in QTI 2.1, 2.2 or 3.0: identifiers that QTI takes, SCORE in points, declared
 * correct responses, rows of a QTI 1.2 match as pairs; names every loss.
 */
export function fitQti2(holding: Holding, version: Version): Fitted2 {
  const findings: Finding[] = [];
  const itemId = identifierMaker('i_');
  const containerId = identifierMaker('c_');
  const weights = itemWeights(holding.quizzes);
  // Identifiers are given in the order of the items, whichever of them is fitted first.
  for (const { id } of holding.items) itemId(id);
  const items = new ItemFits(holding.items, (item, lost) =>
    fitItem(joinRows(item), weights.get(item.id) ?? 1, itemId, version, lost),
  );
  const quizzes = holding.quizzes.map((quiz) => {
    findings.push(...lostDates(quiz));
    noteMetadata(quiz.id, quiz.metadata, findings);
    return {
      ...quiz,
      id: containerId(quiz.id),
      test: quiz.test && renameTest(quiz.test, itemId),
      sections: quiz.sections.map((s) => ({
        ...s,
        id: containerId(`${quiz.id} ${s.id}`),
        items: s.items.map((r) => ({ ...r, item: itemId(r.item) })),
        draw: s.draw && {
          ...s.draw,
          pool: s.draw.pool.map(itemId),
          weights: drawWeights(
            s.draw,
            (id) => items.given(id)?.points ?? 0,
            (what) => findings.push(finding('loss-draw', 'warning', { node: quiz.id }, { what })),
          ),
        },
      })),
    };
  });
  const banks = holding.banks.map((b) => ({ ...b, id: containerId(b.id), items: b.items.map(itemId) }));
  for (const link of holding.links)
    findings.push(finding('loss-link', 'warning', { node: link.id }, { what: link.title || link.url }));
  if (holding.outline.length > 0 && holding.outline.some((n) => n.children.length > 0)) {
    findings.push(
      finding('loss-section', 'note', {}, { what: 'the folder outline of the course is left out' }),
    );
  }
  return {
    holding: { ...holding, quizzes, banks, links: [], outline: [] },
    items,
    itemId,
    findings: () => [...items.allLosses(), ...findings],
  };
}

/** Item references of a test's structure, under the items' new identifiers. */
function renameTest(test: TestStructure, itemIds: (id: string) => string): TestStructure {
  const rename = <T extends TestSection | TestItemRef>(node: T): T =>
    node.kind === 'item'
      ? { ...node, item: node.item === null ? null : itemIds(node.item) }
      : { ...node, children: node.children.map(rename) };
  return { ...test, parts: test.parts.map((p) => ({ ...p, sections: p.sections.map(rename) })) };
}

/** What each pool item is multiplied by so that it gives the draw's points. */
function drawWeights(
  draw: NonNullable<Holding['quizzes'][number]['sections'][number]['draw']>,
  pointsOf: (item: string) => number,
  lose: (what: string) => void,
): number[] | null {
  if (draw.weights) return [...draw.weights];
  const worth = draw.pool.map(pointsOf);
  // A pool of unequal points whose mean is the draw's was never given points of its own.
  const scored = worth.filter((p) => p > 0);
  const mean = scored.reduce((a, b) => a + b, 0) / Math.max(1, scored.length);
  if (near(mean, draw.pointsEach)) return null;
  if (scored.length === 0) lose(`${plainNumber(draw.pointsEach)} points each, on items that give none`);
  // Unrounded, so that multiplying gives the points back.
  return worth.map((p) => (p > 0 ? draw.pointsEach / p : 1));
}

function fitItem(
  item: Item,
  weight: number,
  itemIds: (id: string) => string,
  version: Version,
  findings: Finding[],
): Item {
  const where = { ...placeOf(item.origin), node: item.id };
  noteLosses(item, where, version, findings);
  const factor = exact(item.scale / weight);
  const recognised = item.standard === 'qti1.2' && item.templates.length === 0 ? recognise(item) : null;
  const key = recognised?.best.raw ? recognised : null;
  const manual = item.scoring.rules.length === 0;
  const scored: Item = {
    ...item,
    responses: item.responses.map((r) => {
      const found = (key && own(key.key, r.id)) ?? [];
      const correct =
        r.correct.length > 0
          ? r.correct
          : r.cardinality === 'single'
            ? ((key && own(key.best.answers, r.id)) ?? found).slice(0, 1)
            : found;
      return { ...r, correct };
    }),
    scoring: scaleProgram(item.scoring, item.scoreOutcome, manual ? 1 : factor),
    outcomes: item.outcomes.map((o) => {
      if (o.id !== item.scoreOutcome) return o;
      const times = (n: number | null): number | null => (n === null || manual ? n : exact(n * factor));
      const maximum = manual && item.points > 0 ? exact(item.points / weight) : times(o.normalMaximum);
      return { ...o, normalMaximum: maximum, normalMinimum: times(o.normalMinimum) };
    }),
  };
  const needsFeedback = scored.feedback.some((f) => !scored.outcomes.some((o) => o.id === f.outcome));
  const declared = needsFeedback
    ? {
        ...scored,
        outcomes: [
          ...scored.outcomes,
          outcome(scored.feedback[0]!.outcome, {
            cardinality: 'multiple',
            baseType: 'identifier',
            defaultValue: [],
          }),
        ],
      }
    : scored;
  const variables = identifierMaker('v_');
  // SCORE is what every reader of QTI 2 looks for, so that name is taken first.
  const score = (id: string): string =>
    id === item.scoreOutcome ? variables('SCORE') : id === 'SCORE' ? variables('SCORE\u0000') : variables(id);
  score(item.scoreOutcome);
  return {
    ...renameItem(declared, { response: variables, outcome: score, identifier: identifierMaker('c_') }),
    id: itemIds(item.id),
  };
}

function noteLosses(item: Item, where: Finding['where'], version: Version, findings: Finding[]): void {
  const own = standardOf(version);
  for (const interaction of interactionsOf(item)) {
    if (interaction.kind === 'custom' && interaction.standard !== own) {
      findings.push(
        finding('loss-kind', 'error', where, {
          what: `<${interaction.name}> is not supported by this version; its text goes along, the question does not work there`,
        }),
      );
    }
  }
  walk(item.body, (node) => {
    if (node.kind === 'opaque' && node.standard !== own)
      findings.push(finding('loss-kind', 'warning', where, { what: `<${node.name}> is left out` }));
  });
  for (const part of item.kept)
    if (part.standard !== own)
      findings.push(finding('loss-metadata', 'warning', where, { what: `<${part.name}>` }));
  if (version === '2.1' && item.stimuli.length > 0)
    findings.push(
      finding('loss-kind', 'note', where, { what: 'the shared passage goes into the item itself' }),
    );
  if (item.scoring.untranslated.length > 0) {
    findings.push(finding('loss-scoring', 'error', where, { what: item.scoring.untranslated.join(', ') }));
  }
  const kinds = new Set(item.feedback.filter((f) => f.kind !== 'general').map((f) => f.kind));
  if (kinds.size > 0) {
    findings.push(
      finding('loss-feedback', 'note', where, {
        what: `${[...kinds].join(' and ')} goes along as ordinary feedback`,
      }),
    );
  }
  noteMetadata(item.id, item.metadata, findings);
}

function noteMetadata(node: string, metadata: Item['metadata'], findings: Finding[]): void {
  const lost = metadata.filter((f) => !SAID_ELSEWHERE.test(f.label)).map((f) => f.label);
  if (lost.length > 0)
    findings.push(finding('loss-metadata', 'note', { node }, { what: [...new Set(lost)].join(', ') }));
}
