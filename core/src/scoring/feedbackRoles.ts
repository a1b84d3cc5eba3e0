import type { ContentNode } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { near } from '../model/number.ts';
import { own } from '../model/own.ts';
import { walk } from '../model/visit.ts';
import { explore } from './budget.ts';
import { concrete } from './concrete.ts';
import { evaluate, type Answers, type Result } from './evaluate.ts';
import { choiceIds, probesOf } from './probe.ts';
import { recognise } from './recognise.ts';

/** Who is shown a text: everybody, who has all points, who has not, or who picked a choice. */
export type FeedbackRole =
  | { readonly on: 'general' | 'right' }
  /** `unanswered`: whether it is shown to who gives no answer at all, too. */
  | { readonly on: 'wrong'; readonly unanswered: boolean }
  | { readonly on: 'choice'; readonly response: string; readonly choice: string };

/** A text that answers a candidate, by the outcome that shows it. */
export interface RoledFeedback {
  readonly id: string;
  readonly outcome: string;
  readonly content: readonly ContentNode[];
  /** Whether it stands in the body, or beside the item. */
  readonly inside: boolean;
  /** Null where it is shown on conditions of its own. */
  readonly role: FeedbackRole | null;
}

type Shown = Omit<RoledFeedback, 'role'> & { readonly show: boolean };

/** The texts of an item that a program shows; hints and solutions are shown on request. */
function shownBy(item: Item): Shown[] {
  const out: Shown[] = [];
  walk(item.body, (node) => {
    if (node.kind === 'feedback')
      out.push({
        id: node.identifier,
        outcome: node.outcome,
        content: node.children,
        inside: true,
        show: node.show,
      });
  });
  for (const f of item.feedback)
    if (f.kind === 'general')
      out.push({ id: f.id, outcome: f.outcome, content: f.content, inside: false, show: f.show });
  return out;
}

/** On which answers each text is shown, found by running the item on answers that tell its rules apart. */
export function feedbackRoles(given: Item): RoledFeedback[] {
  const shown = shownBy(given);
  if (shown.length === 0) return [];
  const unknown = (): RoledFeedback[] => shown.map(({ show: _show, ...f }) => ({ ...f, role: null }));
  return explore(() => rolesOf(given, shown), unknown);
}

function rolesOf(given: Item, shown: readonly Shown[]): RoledFeedback[] {
  const item = concrete(given);
  const { best } = recognise(given);
  const answers = probesOf(item, best.answers).answers.filter((a) => Object.keys(a).length > 0);
  const runs = answers.map((a) => evaluate(item, a));
  const full = runs.map((r) => best.raw > 0 && near(r.raw, best.raw));
  const isShown = (f: Shown, run: Result): boolean =>
    ((own(run.outcomes, f.outcome) ?? null)?.values.some((v) => String(v) === f.id) ?? false) === f.show;
  const seen = shown.map((f) => runs.map((r) => isShown(f, r)));
  const silent = evaluate(item, {});
  const picks = choicePicks(item, answers);
  const byChoice = seen.map((vector) => picks.find((p) => same(p.vector, vector)) ?? null);
  // A text on the right choice is one "when right" unless other choices have texts of their own.
  const others = byChoice.filter((p) => p !== null && !same(p.vector, full)).length;
  return shown.map((given, at) => {
    const { show, ...f } = given;
    const unanswered = isShown(given, silent);
    const vector = seen[at]!;
    const pick = byChoice[at]!;
    const role = (): FeedbackRole | null => {
      if (answers.length === 0) return null;
      if (vector.every((v) => v)) return show && unanswered ? { on: 'general' } : null;
      if (!show) return null;
      if (!unanswered && same(vector, full) && (others === 0 || pick === null)) return { on: 'right' };
      if (pick && !unanswered) return { on: 'choice', response: pick.response, choice: pick.choice };
      return same(
        vector,
        full.map((v) => !v),
      )
        ? { on: 'wrong', unanswered }
        : null;
    };
    return { ...f, role: role() };
  });
}

interface Pick {
  readonly response: string;
  readonly choice: string;
  readonly vector: readonly boolean[];
}

const choicePicks = (item: Item, answers: readonly Answers[]): Pick[] =>
  item.responses.flatMap((r) =>
    choiceIds(item, r.id).map((choice) => ({
      response: r.id,
      choice,
      vector: answers.map((a) => (own(a, r.id) ?? []).includes(choice)),
    })),
  );

const same = (a: readonly boolean[], b: readonly boolean[]): boolean => a.every((v, at) => v === b[at]);
