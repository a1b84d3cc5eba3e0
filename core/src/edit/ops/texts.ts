import type { ContentNode, Feedback } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import { outcome } from '../../model/make.ts';
import { plain, stemText } from '../../model/plainText.ts';
import { recognise } from '../../scoring/recognise.ts';
import { feedbackRoles, type FeedbackRole, type RoledFeedback } from '../../scoring/feedbackRoles.ts';
import { choiceIds } from '../../scoring/probe.ts';
import { mapLists } from '../../model/visit.ts';
import type { Expr } from '../../model/scoring.ts';
import { refused, isRefused, type Refused } from '../refusal.ts';
import { fullMarks, showRule, withoutFeedback, withoutSteps } from '../rescore.ts';
import { withText } from '../retext.ts';
import type { ItemOperation } from './operation.ts';

const squeeze = (text: string): string => text.replace(/\s+/gu, ' ').trim();

export const STEM: ItemOperation<'stem'> = {
  on: 'item',
  now: stemText,
  wanted: (edit) => squeeze(edit.to),
  apply: (item, edit) => {
    const body = withText(item.body, edit.to);
    return isRefused(body) ? body : { ...item, body };
  },
};

const FIELDS = /^(?:cc_question_category|qmd_topic)$/iu;

export const CATEGORY: ItemOperation<'category'> = {
  on: 'item',
  now: (item) => item.category,
  wanted: (edit) => (edit.to === null || edit.to.trim() === '' ? null : edit.to.trim()),
  apply: (item, edit) => ({
    ...item,
    category: edit.to === null || edit.to.trim() === '' ? null : edit.to.trim(),
    // The field it was read from would say the old one again.
    metadata: item.metadata.filter((f) => !FIELDS.test(f.label)),
  }),
};

/** What `on` names: a choice where it is no word of its own. */
function roleOf(item: Item, on: string): FeedbackRole | Refused {
  if (on === 'general' || on === 'right') return { on };
  if (on === 'wrong') return { on, unanswered: true };
  const response = item.responses.find((r) => choiceIds(item, r.id).includes(on));
  const known = item.responses.flatMap((r) => choiceIds(item, r.id));
  return response
    ? { on: 'choice', response: response.id, choice: on }
    : refused('choice-unknown', { choice: on, known: ['general', 'right', 'wrong', ...known].join(', ') });
}

const sameRole = (a: FeedbackRole | null, b: FeedbackRole): boolean =>
  a !== null &&
  a.on === b.on &&
  (a.on !== 'choice' || b.on !== 'choice' || (a.choice === b.choice && a.response === b.response));

const roled = (item: Item, role: FeedbackRole): RoledFeedback | undefined =>
  feedbackRoles(item).find((f) => sameRole(f.role, role));

/** Texts for who is right, wrong, picked a choice, or everybody. Hints and solutions are not among them. */
export const FEEDBACK: ItemOperation<'feedback'> = {
  on: 'item',
  now: (item, edit) => {
    const found = roledAt(item, edit.on);
    return isRefused(found) ? found : found ? plain(found.content) : null;
  },
  wanted: (edit) => (edit.to === null || squeeze(edit.to) === '' ? null : squeeze(edit.to)),
  apply: (item, edit) => {
    const role = roleOf(item, edit.on);
    if (isRefused(role)) return role;
    const found = roled(item, role);
    const to = edit.to === null ? '' : edit.to.trim();
    if (found) {
      const content = to === '' ? [] : withText(found.content, to);
      return to === '' ? removed(item, found) : isRefused(content) ? content : retold(item, found, content);
    }
    return to === '' ? refused('feedback-none', { on: edit.on }) : told(item, role, to, edit.on);
  },
};

/** The text that has a role, if there is one. */
export function roledAt(item: Item, on: string): RoledFeedback | undefined | Refused {
  const role = roleOf(item, on);
  return isRefused(role) ? role : roled(item, role);
}

/** An item whose text of a role says something else. */
export function retold(item: Item, found: RoledFeedback, content: readonly ContentNode[]): Item {
  if (!found.inside)
    return {
      ...item,
      feedback: item.feedback.map((f) =>
        f.id === found.id && f.outcome === found.outcome && f.kind === 'general' ? { ...f, content } : f,
      ),
    };
  const list = (nodes: readonly ContentNode[]): ContentNode[] =>
    nodes.map((n) =>
      n.kind === 'feedback' && n.identifier === found.id && n.outcome === found.outcome
        ? { ...n, children: content }
        : mapLists(n, list),
    );
  return { ...item, body: list(item.body) };
}

/** The text goes; a rule that sets its outcome shows nothing any more. */
function removed(item: Item, found: RoledFeedback): Item {
  const gone = (id: string, of: string): boolean => id === found.id && of === found.outcome;
  return {
    ...item,
    body: found.inside ? withoutFeedback(item.body, gone) : item.body,
    outcomes: item.outcomes.map((o) =>
      o.id === found.outcome && o.defaultValue.includes(found.id)
        ? { ...o, defaultValue: o.defaultValue.filter((v) => v !== found.id) }
        : o,
    ),
    feedback: item.feedback.filter((f) => f.kind !== 'general' || !gone(f.id, f.outcome)),
    scoring: {
      ...item.scoring,
      rules: item.scoring.rules.flatMap((r) =>
        withoutSteps(r, (s) => s.do === 'set' && s.id === found.outcome && names(s.value, found.id)),
      ),
    },
  };
}

const names = (expr: Expr, id: string): boolean =>
  (expr.op === 'baseValue' && expr.value === id) ||
  (expr.op === 'call' && expr.args.some((a) => names(a, id)));

const NAMES: Readonly<Record<'general' | 'right' | 'wrong', string>> = {
  general: 'general_feedback',
  right: 'right_feedback',
  wrong: 'wrong_feedback',
};

/** A further text, with an outcome of several names that may be shown together. */
function told(item: Item, role: FeedbackRole, to: string, on: string): Item | Refused {
  const { shape, key } = recognise(item);
  const name = role.on === 'choice' ? `feedback_${role.choice}` : NAMES[role.on];
  const id = fresh(name, (n) => item.feedback.some((f) => f.id === n));
  const shared = item.outcomes.find(
    (o) => o.cardinality === 'multiple' && o.baseType === 'identifier' && o.id.startsWith('FEEDBACK'),
  );
  const ready = item.standard === 'qti1.2' ? 'FEEDBACK' : null;
  const of = shared?.id ?? ready ?? fresh('FEEDBACK', (n) => item.outcomes.some((o) => o.id === n));
  const declared = item.outcomes.some((o) => o.id === of)
    ? item.outcomes
    : [...item.outcomes, outcome(of, { cardinality: 'multiple', baseType: 'identifier', defaultValue: [] })];
  // What everybody is told needs no rule.
  const outcomes = declared.map((o) =>
    role.on === 'general' && o.id === of ? { ...o, defaultValue: [...o.defaultValue, id] } : o,
  );
  const withOutcome: Item = { ...item, outcomes };
  const rules = showRule(withOutcome, { id, outcome: of }, role, fullMarks(item, shape, key));
  if (!rules) return refused('feedback-none', { on });
  const content: ContentNode[] = [{ kind: 'text', text: to }];
  const { template: _written, ...scoring } = item.scoring;
  return {
    ...withOutcome,
    feedback: [...item.feedback, { id, kind: 'general', title: '', outcome: of, show: true, content }],
    // In front, where no rule can end processing before it.
    scoring: { ...scoring, rules: [...rules, ...item.scoring.rules] },
  };
}

function fresh(name: string, taken: (name: string) => boolean): string {
  if (!taken(name)) return name;
  let n = 2;
  while (taken(`${name}_${n}`)) n += 1;
  return `${name}_${n}`;
}

/**
 * Feedback in the text goes beside it, and what is shown on conditions of its own is shown to everybody; who is
 * right, wrong or picked a choice is told what was told before. Hints and solutions stay what they are, unless
 * they too are to be ordinary texts.
 */
export const FEEDBACK_PLAIN: ItemOperation<'feedback-plain'> = {
  on: 'item',
  now: (item, { hints }) =>
    feedbackRoles(item).filter((f) => f.inside || f.role === null).length +
    (hints ? item.feedback.filter(isHelp).length : 0),
  wanted: () => 0,
  apply: (item, { hints }) => {
    const roles = feedbackRoles(item);
    const helps = hints ? item.feedback.filter(isHelp) : [];
    const always = [...roles.filter((f) => f.role === null), ...helps];
    const beside = roles
      .filter((f) => f.inside)
      .map((f) => ({
        id: f.id,
        kind: 'general' as const,
        title: '',
        outcome: f.outcome,
        show: true,
        content: f.content,
      }));
    const open = (f: { id: string; outcome: string }): boolean =>
      always.some((a) => a.id === f.id && a.outcome === f.outcome);
    return {
      ...item,
      body: withoutFeedback(item.body, () => true),
      feedback: [...item.feedback, ...beside].map((f) =>
        open(f) && (f.kind === 'general' || hints)
          ? { ...f, kind: 'general', outcome: TOLD_ALL, show: true }
          : f,
      ),
      outcomes: always.length === 0 ? item.outcomes : withAll(item, always),
    };
  },
};

const isHelp = (f: Feedback): boolean => f.kind !== 'general';

/** The outcomes with one that shows these texts to everybody. */
function withAll(item: Item, always: readonly { readonly id: string }[]): Item['outcomes'] {
  const before = item.outcomes.find((o) => o.id === TOLD_ALL)?.defaultValue ?? [];
  return [
    ...item.outcomes.filter((o) => o.id !== TOLD_ALL),
    outcome(TOLD_ALL, {
      cardinality: 'multiple',
      baseType: 'identifier',
      defaultValue: [...new Set([...before, ...always.map((a) => a.id)])],
    }),
  ];
}

/** The outcome that holds what everybody is told. */
const TOLD_ALL = 'FEEDBACK_ALL';
