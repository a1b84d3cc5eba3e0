import { applyEdits } from '../edit/apply.ts';
import type { Edit } from '../edit/schema.ts';
import { carriedTitle } from '../formats/cartridge/write.ts';
import type { Target } from '../formats/table.ts';
import type { Finding } from '../model/finding.ts';
import type { Bank, Holding, Item, Quiz } from '../model/holding.ts';
import { fixedItems } from '../model/quizzes.ts';
import { forecast } from '../writing/write.ts';
import type { Repair } from './index.ts';
import { itemChanges } from './itemChanges.ts';
import { quizChanges } from './quizChanges.ts';
import { Situation } from './repairer.ts';
import { quizOtherwise, scoresOtherwise, type Otherwise } from './scoresOtherwise.ts';
import { titled } from './titles.ts';

/** A repair of a loss: what a change brings the target to keep, and whether anybody scores otherwise by it. */
export interface LossRepair extends Repair {
  /** Null where every answer scores as before; else one that does not. */
  readonly scores: Otherwise | null;
}

/**
 * The repairs that losses of a forecast have. Nothing is believed: each change is made, the forecast is made
 * again, and of those that take the loss away without bringing another the first that scores the same is
 * proposed, else the first.
 * @param most how many things are looked at: each takes some milliseconds
 */
export function lossRepairs(
  holding: Holding,
  target: Target,
  losses: readonly Finding[],
  most = Infinity,
): LossRepair[] {
  const situation = new Situation(holding);
  const trials = new Trials(holding, target);
  const looked = new Set<string>();
  return losses.flatMap((loss, at): LossRepair[] => {
    const { node } = loss.where;
    if (!loss.code.startsWith('loss-') || node === null) return [];
    if (looked.size >= most && !looked.has(node)) return [];
    looked.add(node);
    const item = situation.items.get(node);
    const quiz = situation.quizzes.get(node);
    const bank = situation.banks.get(node);
    const found = item
      ? itemRepair(trials, item, loss)
      : quiz
        ? quizRepair(situation, quiz, target, loss)
        : bank
          ? bankRepair(holding, bank, target, loss)
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
  readonly scores: () => Otherwise | null;
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

  private drawn: ReadonlySet<string> | null = null;
  private fixed: ReadonlySet<string> | null = null;

  private places(id: string): { drawn: boolean; fixed: boolean } {
    const { quizzes } = this.holding;
    this.drawn ??= new Set(quizzes.flatMap((q) => q.sections.flatMap((s) => s.draw?.pool ?? [])));
    this.fixed ??= new Set(quizzes.flatMap(fixedItems));
    return { drawn: this.drawn.has(id), fixed: this.fixed.has(id) };
  }

  of(item: Item): { readonly now: readonly Finding[]; readonly tried: readonly Tried[] } {
    const had = this.known.get(item.id);
    if (had) return had;
    const alone: Holding = { ...this.holding, ...NOTHING_ELSE, items: [item] };
    const where = { ...this.places(item.id), draws: !this.target.startsWith('cc') };
    const tried = itemChanges(item, where).flatMap((edits): Tried[] => {
      const done = applyEdits(alone, edits);
      if (done.refused.length > 0 || done.holding === alone) return [];
      const losses = forecast(done.holding, this.target);
      return [{ edits, losses, scores: () => scoresOtherwise(alone, edits, item.id) }];
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
    if (helps(alone, done.holding, target, loss))
      return { edits, scores: quizOtherwise(alone, done.holding, quiz.id) };
  }
  return null;
}

/** A bank is called what the target can carry, so that it arrives as it went. */
function bankRepair(holding: Holding, bank: Bank, target: Target, loss: Finding): Found | null {
  const to = carriedTitle(bank.title);
  if (loss.code !== 'loss-bank' || to === bank.title) return null;
  const alone = (title: string): Holding => ({
    ...holding,
    ...NOTHING_ELSE,
    items: [],
    banks: [{ ...bank, title, items: [] }],
  });
  if (!helps(alone(bank.title), alone(to), target, loss)) return null;
  return { edits: [titled(bank.id, 'bank', to)], scores: null };
}
