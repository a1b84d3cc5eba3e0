import type { Feedback } from '../model/content.ts';
import { lostDates, lostSetting, type Lose } from './losses.ts';
import { finding, type Finding } from '../model/finding.ts';
import type { Draw, Holding, Item, Quiz, Section } from '../model/holding.ts';
import { near, plainNumber, tidyNumber } from '../model/number.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { nameOf } from '../model/plainText.ts';
import { responseIdsOf } from '../model/options.ts';
import { concrete } from '../scoring/concrete.ts';
import { FIXED_SEED, fixedDraw } from './draws.ts';
import { ItemFits } from './itemFits.ts';
import { recognise } from '../scoring/recognise.ts';
import type { Condition12, Item12 } from '../model/conditions12.ts';
import { placeOf } from '../model/origin.ts';
import { convertKinds, onRows, type Profile } from './kinds12.ts';
import { sayScoring } from './program12.ts';
import { type Said } from './said12.ts';

interface Fitted12 {
  /** With its quizzes fitted; its items are fitted one by one. */
  readonly holding: Holding;
  readonly items: ItemFits<Item12>;
  /** What is lost: of items, in their order, then of what holds them. */
  readonly findings: () => Finding[];
}

/** Fields of other standards that mean nothing in QTI 1.2. */
const FOREIGN = /^(?:toolname|toolversion|timedependent)$/iu;
/** Drawn items named in the forecast. */
const SHOWN = 5;

/**
 * Makes a holding sayable in QTI 1.2, plain or in the cartridge profile; names every loss and every repair.
 */
export function fitQti12(holding: Holding, profile: Profile): Fitted12 {
  const findings: Finding[] = [];
  const items = new ItemFits(holding.items, (item, lost) => fitItem(item, profile, lost));
  const quizzes = holding.quizzes.map((quiz) => fitQuiz(quiz, profile, items, findings));
  if (profile === 'plain')
    for (const link of holding.links)
      findings.push(finding('loss-link', 'warning', { node: link.id }, { what: link.title || link.url }));
  return { holding: { ...holding, quizzes }, items, findings: () => [...items.allLosses(), ...findings] };
}

function fitItem(given: Item, profile: Profile, findings: Finding[]): Item12 {
  const item = concrete(given);
  const where = { ...placeOf(item.origin), node: item.id };
  const lose: Lose = (code, severity, what) => void findings.push(finding(code, severity, where, { what }));
  const { item: converted, losses, rows } = convertKinds({ ...item, templates: given.templates }, profile);
  for (const loss of losses) lose('loss-kind', loss.severity, loss.what);
  // A cartridge scores in per cent of the weight; plain QTI 1.2 in points.
  const recognised = recognise(item);
  const full = recognised.best.raw;
  const factor = profile === 'cartridge' ? (full > 0 ? 100 / full : 1) : item.scale;
  const broken = losses.some((l) => l.severity === 'error');
  const said = sayScoring(item, factor, !broken);
  if (said.lost !== null) lose('loss-scoring', 'warning', said.lost);
  if (item.scoring.untranslated.length > 0)
    lose('loss-scoring', 'error', item.scoring.untranslated.join(', '));
  if (item.adaptive) lose('loss-scoring', 'warning', 'attempts that build on one another');
  noteProfile(recognised.shape.kind, said, profile, lose);
  const feedback = fitFeedback(item, said.conditions, lose);
  const kept = item.kept.filter((k) => k.standard !== 'qti1.2' || profile === 'cartridge');
  if (kept.length > 0) lose('loss-metadata', 'warning', kept.map((k) => `<${k.name}>`).join(', '));
  const asked = new Set(interactionsOf(converted).flatMap((i) => responseIdsOf(i)));
  const conditions = broken ? feedback.told.filter((c) => c.score === null) : feedback.told;
  const manual = conditions.every((c) => c.score === null);
  return {
    item: {
      ...converted,
      responses: converted.responses.filter((r) => asked.has(r.id)),
      metadata: item.metadata.filter((f) => !FOREIGN.test(f.label)),
    },
    conditions: [...feedback.always, ...onRows(conditions, rows)].map((c) => ({
      ...c,
      score: c.score === null ? null : tidyNumber(c.score),
    })),
    minimum: said.lower === null ? null : tidyNumber(said.lower),
    maximum: tidyNumber(said.upper ?? (profile === 'cartridge' ? 100 : manual ? item.points : full * factor)),
    feedback: feedback.texts,
  };
}

function noteProfile(kind: string, said: Said, profile: Profile, lose: Lose): void {
  if (profile !== 'cartridge' || said.lost !== null) return;
  if (kind === 'per-choice' || kind === 'program' || kind === 'sum-of-parts')
    lose('loss-scoring', 'warning', 'partial credit is written, but it is outside the cartridge profile');
  if (kind === 'numeric')
    lose(
      'loss-scoring',
      'note',
      'a number is written as comparisons, which is outside the cartridge profile',
    );
}

/**
 * Feedback beside the body: shown by the conditions that name it, else always. Feedback inside the body goes
 * beside it.
 */
function fitFeedback(
  item: Item,
  conditions: readonly Condition12[],
  lose: Lose,
): { texts: Feedback[]; always: Condition12[]; told: Condition12[] } {
  const beside = new Set(item.feedback.map((f) => f.id));
  const inside: Feedback[] = [];
  // What stands in the body under the name of something beside it is shown along with it.
  const along = new Map<string, string>();
  walk(item.body, (node) => {
    if (node.kind !== 'feedback') return;
    const taken = beside.has(node.identifier) || inside.some((f) => f.id === node.identifier);
    const id = taken ? `body_${inside.length + 1}_${node.identifier}` : node.identifier;
    if (taken) along.set(id, node.identifier);
    inside.push({
      id,
      kind: 'general',
      title: '',
      outcome: node.outcome,
      show: node.show,
      content: node.children,
    });
  });
  if (inside.length > 0) lose('loss-feedback', 'warning', 'feedback within the text goes beside it');
  const texts = [...item.feedback, ...inside];
  const told = conditions.map((c) => ({
    ...c,
    feedback: [...c.feedback, ...[...along].filter(([, of]) => c.feedback.includes(of)).map(([id]) => id)],
  }));
  const shown = new Set(told.flatMap((c) => c.feedback));
  const byDefault = (f: Feedback): boolean =>
    item.outcomes.find((o) => o.id === f.outcome)?.defaultValue.includes(along.get(f.id) ?? f.id) ?? false;
  // There is no condition under which a text is not shown.
  const hidden = texts.filter((f) => !f.show);
  const unnamed = texts.filter((f) => f.show && !shown.has(f.id));
  if (hidden.length > 0 || unnamed.some((f) => !byDefault(f)))
    lose('loss-feedback', 'warning', 'when it is shown; it is shown always');
  const always = [...unnamed, ...hidden]
    .filter((f) => f.kind === 'general')
    .map((f): Condition12 => ({
      when: { test: 'other' },
      score: null,
      action: 'Set',
      goesOn: true,
      feedback: [f.id],
    }));
  return { texts, always, told };
}

function fitQuiz(quiz: Quiz, profile: Profile, items: ItemFits<Item12>, findings: Finding[]): Quiz {
  const where = { path: quiz.origin?.path ?? null, node: quiz.id };
  const lose: Lose = (code, severity, what) => void findings.push(finding(code, severity, where, { what }));
  const { passMark } = quiz.settings;
  findings.push(...lostDates(quiz));
  noteTest(quiz, findings, lose);
  if (profile === 'plain') {
    for (const s of quiz.sections) if (s.draw) notePoints(s.draw, items, lose);
    return quiz;
  }
  if (passMark !== null)
    findings.push(lostSetting(quiz, 'pass-mark', `the pass mark of ${plainNumber(passMark)} points`));
  if (quiz.sections.some((s) => s.shuffle))
    findings.push(lostSetting(quiz, 'shuffle', 'items in random order'));
  const titled = quiz.sections.filter((s) => s.title !== '');
  if (titled.length > 0)
    lose(
      'loss-section',
      quiz.sections.length > 1 ? 'warning' : 'note',
      `${titled.length === 1 ? 'a section loses its title' : `${titled.length} sections become one`} (${titled.map((s) => s.title).join('; ')})`,
    );
  const inner = quiz.sections.map((s) => s.instructions).filter((t) => t !== null);
  if (inner.length > 0)
    findings.push(lostSetting(quiz, 'instructions', 'instructions of sections stand before the whole quiz'));
  const sections = quiz.sections.map((s) => (s.draw ? fixDraw(s, s.draw, items, lose) : s));
  return { ...quiz, sections };
}

/** What a QTI 2 test says that the flattened quiz does not. */
function noteTest(quiz: Quiz, findings: Finding[], lose: Lose): void {
  const { test } = quiz;
  if (!test) return;
  const nodes = test.parts.flatMap((p) => [p, ...p.sections]);
  if (nodes.some((n) => n.preConditions.length + n.branchRules.length > 0))
    findings.push(lostSetting(quiz, 'conditions', 'conditions on which parts are shown or left out'));
  if (test.parts.length > 1) lose('loss-section', 'warning', `${test.parts.length} parts become one`);
  if (test.feedback.length > 0) lose('loss-feedback', 'warning', 'feedback on the whole test');
}

function notePoints(draw: Draw, items: ItemFits<Item12>, lose: Lose): void {
  if (draw.withReplacement) lose('loss-draw', 'warning', 'drawing the same item twice');
  if (draw.pool.some((id) => !near(items.given(id)?.points ?? 0, draw.pointsEach)))
    lose('loss-draw', 'note', `${plainNumber(draw.pointsEach)} points each stand in an extension`);
}

/** The cartridge profile has no draws: the items that one seed gives are set for everybody. */
function fixDraw(section: Section, draw: Draw, items: ItemFits<Item12>, lose: Lose): Section {
  const named = (id: string): string => {
    const item = items.given(id);
    return item ? nameOf(item) : id;
  };
  const { section: fixed, drawn } = fixedDraw(section, draw);
  lose(
    'loss-draw',
    'warning',
    `${draw.pick} of ${draw.pool.length} become fixed items, drawn with seed ${FIXED_SEED}: ${drawn
      .slice(0, SHOWN)
      .map(named)
      .join('; ')}${drawn.length > SHOWN ? `; and ${drawn.length - SHOWN} more` : ''}`,
  );
  return fixed;
}
