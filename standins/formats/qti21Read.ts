import type { Answer, HeldChoice, HeldItem, HeldQuiz, HeldSection, Placed } from '../held.ts';
import { marked21 } from './qti21Marking.ts';
import { attr, deep, inner, kid, kids, numberIn, outer, Unknown, type Element } from './xml.ts';

/** Reads QTI 2.1 as far as this system knows it; an item that it does not know is kept as it came. */

export function readItem21(el: Element, category: string | null): HeldItem {
  const common = { id: attr(el, 'identifier') ?? '', title: attr(el, 'title') ?? '', category };
  const body = kid(el, 'itemBody');
  try {
    if (!body) throw new Unknown('no body');
    if (['templateDeclaration', 'templateProcessing', 'stylesheet'].some((name) => kid(el, name)))
      throw new Unknown('templates');
    if (deep(body, 'feedbackInline').length > 0 || deep(body, 'feedbackBlock').length > 0)
      throw new Unknown('feedback within the text');
    const interactions = deep(body, '*').filter((e) => /Interaction$/u.test(e.localName ?? ''));
    const [interaction] = interactions;
    if (!interaction || interactions.length > 1) throw new Unknown('not one interaction');
    const choice = interaction.localName === 'choiceInteraction' ? choiceOf(interaction) : null;
    const known = marked21(el, interaction, choice);
    const written = outer(interaction);
    const whole = inner(body);
    if (!whole.includes(written)) throw new Unknown('cannot be found again');
    return { ...common, body: whole.replace(written, () => '<answer/>'), ...known };
  } catch (error) {
    if (!(error instanceof Unknown)) throw error;
    const score = kids(el, 'outcomeDeclaration').find((o) => attr(o, 'identifier') === 'SCORE');
    const points = Number((score && attr(score, 'normalMaximum')) ?? 1);
    return {
      ...common,
      points,
      body: body ? inner(body) : '',
      answer: { kind: 'kept', xml: outer(el), points },
      feedback: [],
    };
  }
}

export type ReadChoice = Omit<Extract<Answer, { kind: 'choice' }>, 'kind' | 'marking'>;

function choiceOf(el: Element): ReadChoice {
  const prompt = kid(el, 'prompt');
  const choices = kids(el, 'simpleChoice').map((c): HeldChoice => ({
    id: attr(c, 'identifier') ?? '',
    text: inner(c),
    fixed: attr(c, 'fixed') === 'true',
  }));
  if (attr(el, 'minChoices') !== null && attr(el, 'minChoices') !== '0') throw new Unknown('a least number');
  return {
    prompt: prompt ? inner(prompt) : null,
    // One, where nothing is said (QTI 2.1 Information Model, "choiceInteraction").
    maxChoices: Number(attr(el, 'maxChoices') ?? 1),
    shuffle: attr(el, 'shuffle') === 'true',
    choices,
  };
}

/** @param idOf the item that a reference means; null where the package has none */
export function readTest21(el: Element, idOf: (href: string) => HeldItem | null): HeldQuiz {
  const control = deep(el, 'itemSessionControl').map((c) => attr(c, 'maxAttempts'));
  const [attempts = null] = control;
  const seconds = kid(el, 'timeLimits');
  const mastery = kids(el, 'outcomeDeclaration').find((o) => attr(o, 'masteryValue') !== null);
  const time = seconds && attr(seconds, 'maxTime');
  return {
    id: attr(el, 'identifier') ?? '',
    title: attr(el, 'title') ?? '',
    attempts: attempts === null ? null : attempts === '0' ? 'unlimited' : numberIn(attempts),
    timeLimitMinutes: time === null ? null : numberIn(time) / 60,
    passMark: mastery ? numberIn(attr(mastery, 'masteryValue')) : null,
    instructions: null,
    sections: kids(el, 'testPart').flatMap((p) =>
      kids(p, 'assessmentSection').flatMap((s) => sectionsOf(s, '', idOf)),
    ),
  };
}

const instructionsOf = (el: Element): string | null => {
  const said = kids(el, 'rubricBlock').filter((r) => (attr(r, 'view') ?? '').includes('candidate'));
  return said.length === 0 ? null : said.map(inner).join('');
};

/** Sections within a section stand beside it, named after both. */
function sectionsOf(el: Element, outside: string, idOf: (href: string) => HeldItem | null): HeldSection[] {
  const title = [outside, attr(el, 'title') ?? ''].filter((t) => t !== '').join(' / ');
  const selection = kid(el, 'selection');
  const ordering = kid(el, 'ordering');
  const placed = placedIn(el, idOf);
  const pick = selection && attr(selection, 'select');
  const [first] = placed;
  const section: HeldSection = {
    title,
    instructions: instructionsOf(el),
    shuffle: ordering !== null && attr(ordering, 'shuffle') === 'true',
    items: pick === null ? placed.map(({ item, weight }) => ({ item, weight })) : [],
    draw:
      pick === null
        ? null
        : {
            pick: numberIn(pick),
            pool: placed.map((p) => p.item),
            bank: null,
            pointsEach: first ? first.weight * first.points : 0,
          },
  };
  const inside = kids(el, 'assessmentSection').flatMap((s) => sectionsOf(s, title, idOf));
  return placed.length === 0 && inside.length > 0 ? inside : [section, ...inside];
}

/** The items that a section refers to, how much each counts there, and what it is worth by itself. */
export function placedIn(
  el: Element,
  idOf: (href: string) => HeldItem | null,
): (Placed & { readonly points: number })[] {
  return kids(el, 'assessmentItemRef').flatMap((ref) => {
    const item = idOf(attr(ref, 'href') ?? '');
    const weight = kid(ref, 'weight');
    return item
      ? [{ item: item.id, weight: weight ? numberIn(attr(weight, 'value')) : 1, points: item.points }]
      : [];
  });
}
