import { compareItems } from '../compare/items.ts';
import { fileContents } from '../compare/side.ts';
import { applyEdits } from '../edit/apply.ts';
import type { Edit } from '../edit/schema.ts';
import type { Target } from '../formats/table.ts';
import type { Example, Facet } from '../compare/types.ts';
import type { Finding } from '../model/finding.ts';
import type { Holding, Item, Quiz } from '../model/holding.ts';
import { plainNumber } from '../model/number.ts';
import { instructionsOf } from '../model/quizzes.ts';
import { interactionsOf, walk } from '../model/visit.ts';
import { forecast } from '../writing/write.ts';
import type { Repair } from './index.ts';
import { Situation, sectionName } from './repairer.ts';

/** A repair of a loss: what a change brings the target to keep, and whether anybody scores otherwise by it. */
export interface LossRepair extends Repair {
  /** Null where every answer scores as before; else one that does not. */
  readonly scores: null | { readonly example: Example | null };
}

/**
 * The repairs that losses of a forecast have. Nothing is believed: each change is made, the forecast is made
 * again, and of those that take the loss away without bringing another the first that scores the same is
 * proposed, else the first.
 * @param most how many losses are looked at: each takes some milliseconds
 */
export function lossRepairs(
  holding: Holding,
  target: Target,
  losses: readonly Finding[],
  most = Infinity,
): LossRepair[] {
  const situation = new Situation(holding);
  const trials = new Trials(holding, target);
  let left = most;
  return losses.flatMap((loss, at): LossRepair[] => {
    const { node } = loss.where;
    if (!loss.code.startsWith('loss-') || node === null) return [];
    if (left === 0) return [];
    left -= 1;
    const item = situation.items.get(node);
    const quiz = situation.quizzes.get(node);
    const found = item
      ? itemRepair(trials, item, loss)
      : quiz
        ? quizRepair(situation, quiz, target, loss)
        : null;
    return found ? [{ at, code: loss.code, node, ...found }] : [];
  });
}

type Found = Pick<LossRepair, 'edits' | 'scores'>;

const same = (a: Finding, b: Finding): boolean =>
  a.code === b.code && JSON.stringify(a.params) === JSON.stringify(b.params);
const WEIGHT = { error: 100, warning: 10, note: 1 } as const;
const weigh = (findings: readonly Finding[]): number => findings.reduce((n, f) => n + WEIGHT[f.severity], 0);

/** Whether a change takes a loss away and is no worse in all. */
function helps(before: Holding, after: Holding, target: Target, loss: Finding): boolean {
  const [was, is] = [forecast(before, target), forecast(after, target)];
  return !is.some((f) => same(f, loss)) && weigh(is) < weigh(was);
}

/** One change of an item, made and looked at: what is lost with it, and whose scores change. */
interface Tried {
  readonly edits: readonly Edit[];
  readonly losses: readonly Finding[];
  readonly scores: () => LossRepair['scores'];
}

/** What changes of an item bring; each is made once, however many losses the item has. */
class Trials {
  private readonly known = new Map<
    string,
    { readonly now: readonly Finding[]; readonly tried: readonly Tried[] }
  >();
  constructor(
    private readonly holding: Holding,
    private readonly target: Target,
  ) {}

  of(item: Item): { readonly now: readonly Finding[]; readonly tried: readonly Tried[] } {
    const had = this.known.get(item.id);
    if (had) return had;
    const alone: Holding = { ...this.holding, ...NOTHING_ELSE, items: [item] };
    const tried = itemChanges(item).flatMap((edits): Tried[] => {
      const done = applyEdits(alone, edits);
      if (done.refused.length > 0 || done.holding === alone) return [];
      const losses = forecast(done.holding, this.target);
      return [{ edits, losses, scores: () => scoresOtherwise(alone, done.holding, item) }];
    });
    const made = { now: forecast(alone, this.target), tried };
    this.known.set(item.id, made);
    return made;
  }
}

const NOTHING_ELSE = { quizzes: [], banks: [], rubrics: [], links: [], outline: [], findings: [] } as const;

function itemRepair(trials: Trials, item: Item, loss: Finding): Found | null {
  const { now, tried } = trials.of(item);
  let second: Found | null = null;
  for (const { edits, losses, scores } of tried) {
    if (losses.some((f) => same(f, loss)) || weigh(losses) >= weigh(now)) continue;
    const change = scores();
    if (change === null) return { edits, scores: null };
    second ??= { edits, scores: change };
  }
  return second;
}

/** Changes worth trying on an item, the ones that change least first. */
function itemChanges(item: Item): readonly (readonly Edit[])[] {
  const node = item.id;
  const kinds = new Set(interactionsOf(item).map((i) => i.kind));
  const asked: Edit[] = [
    ...(kinds.has('inlineChoice') ? [{ op: 'kind', node, from: 'inlineChoice', to: 'choice' } as const] : []),
    ...(kinds.has('hottext') ? [{ op: 'kind', node, from: 'hottext', to: 'choice' } as const] : []),
    ...(kinds.has('slider') ? [{ op: 'kind', node, from: 'slider', to: 'textEntry' } as const] : []),
  ];
  let feedback = item.feedback.length > 0;
  walk(item.body, (n) => void (feedback ||= n.kind === 'feedback'));
  const several = item.responses.length > 1 || kinds.has('match') || kinds.has('gapMatch');
  const numbers = item.responses.some((r) => r.baseType === 'float' || r.baseType === 'integer');
  return [
    ...(item.stimuli.length > 0 ? [[{ op: 'passage-in', node } as const]] : []),
    ...(feedback ? [[{ op: 'feedback-plain', node } as const]] : []),
    ...(item.templates.length > 0 ? [[{ op: 'parameters-fix', node, seed: 1 } as const]] : []),
    ...asked.map((e) => [e]),
    ...(several
      ? [[{ op: 'separate', node } as const], [{ op: 'separate', node, replace: true } as const]]
      : []),
    [{ op: 'scoring', node, to: 'all-or-nothing' }],
    ...(numbers ? [[{ op: 'scoring', node, to: 'accepted-answers' } as const]] : []),
  ];
}

const SCORE_FACETS: ReadonlySet<Facet> = new Set([
  'key',
  'points',
  'scoring',
  'tolerance',
  'case-sensitivity',
]);

/** An answer that scores otherwise after a change, found by running both; null where there is none. */
function scoresOtherwise(before: Holding, after: Holding, item: Item): LossRepair['scores'] {
  const now = after.items.find((i) => i.id === item.id);
  if (!now) {
    // Several in its place: each row or blank scores by itself what it scored before, unless it was all or nothing.
    const parts = after.items.reduce((sum, i) => sum + i.points, 0);
    const apart = Math.abs(parts - item.points) < 1e-6;
    const asked = applyEdits(before, [{ op: 'separate', node: item.id }]);
    return apart && asked.refused.length === 0 ? null : { example: null };
  }
  const differing = compareItems(item, now, fileContents(before), fileContents(after)).filter((d) =>
    SCORE_FACETS.has(d.facet),
  );
  if (differing.length === 0) return null;
  return { example: differing.find((d) => d.example !== null)?.example ?? null };
}

function quizRepair(situation: Situation, quiz: Quiz, target: Target, loss: Finding): Found | null {
  const { holding } = situation;
  const about = new Set(
    quiz.sections.flatMap((s) => [...s.items.map((r) => r.item), ...(s.draw?.pool ?? [])]),
  );
  const alone: Holding = {
    ...holding,
    ...NOTHING_ELSE,
    quizzes: [quiz],
    items: holding.items.filter((i) => about.has(i.id)),
    banks: holding.banks.filter((b) => quiz.sections.some((s) => s.draw?.bank === b.id)),
  };
  for (const edits of quizChanges(quiz, loss)) {
    const done = applyEdits(alone, edits);
    if (done.refused.length > 0 || done.edits.length === 0) continue;
    if (helps(alone, done.holding, target, loss)) return { edits, scores: null };
  }
  return null;
}

/** Changes worth trying on a quiz for one of its losses. */
function quizChanges(quiz: Quiz, loss: Finding): readonly (readonly Edit[])[] {
  const node = quiz.id;
  switch (loss.code) {
    case 'loss-settings':
      return settingChanges(quiz, loss.params.setting);
    case 'loss-draw': {
      const drawn = quiz.sections.flatMap((s, at) => (s.draw ? [{ at, draw: s.draw }] : []));
      return [
        ...drawn.map(({ at, draw }): Edit[] =>
          draw.pool
            .map((id): Edit => ({ op: 'points', node: id, to: draw.pointsEach }))
            .concat([
              { op: 'draw', node, section: sectionName(quiz, at), to: { pointsEach: draw.pointsEach } },
            ]),
        ),
        ...drawn.map(({ at }): Edit[] => [{ op: 'draw-fix', node, section: sectionName(quiz, at) }]),
      ];
    }
    case 'loss-section':
      return [oneSection(quiz)];
    default:
      return [];
  }
}

/** A quiz of one section without a title, in the order in which it is asked now. */
function oneSection(quiz: Quiz): Edit[] {
  const node = quiz.id;
  const [first, ...rest] = quiz.sections.map((_, at) => sectionName(quiz, at));
  if (first === undefined) return [];
  const dropped = rest.map((section): Edit => ({ op: 'section-drop', node, section }));
  return [...dropped, { op: 'section-title', node, section: first, to: '' }];
}

/** What a target has no place for is said in the instructions, and nowhere else. */
function settingChanges(quiz: Quiz, setting: string): Edit[][] {
  const node = quiz.id;
  const { settings } = quiz;
  const said = instructionsOf(quiz);
  const told = (text: string): string => (said === null ? text : `${said}\n${text}`);
  switch (setting) {
    case 'pass-mark':
      return settings.passMark === null
        ? []
        : [
            [
              {
                op: 'settings',
                node,
                to: {
                  passMark: null,
                  instructions: told(`Pass mark: ${plainNumber(settings.passMark)} points.`),
                },
              },
            ],
          ];
    case 'dates': {
      const { opens, closes } = settings;
      const text = [opens ? `Opens ${opens}.` : '', closes ? `Closes ${closes}.` : '']
        .filter((t) => t !== '')
        .join(' ');
      return [[{ op: 'settings', node, to: { opens: null, closes: null, instructions: told(text) } }]];
    }
    case 'shuffle':
      return [[{ op: 'settings', node, to: { shuffleItems: false } }]];
    case 'instructions':
      return said === null ? [] : [[{ op: 'settings', node, to: { instructions: said } }]];
    default:
      return [];
  }
}
