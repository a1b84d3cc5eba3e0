import { escape } from '../../demo/qti12.ts';
import { type Held, type HeldBank, type HeldItem, type HeldQuiz, type HeldSection } from '../held.ts';
import { materialHtml } from './material.ts';
import { marked12 } from './qti12Marking.ts';
import { attr, deep, kid, kids, numberIn, outer, text, Unknown, type Element } from './xml.ts';

/** Reads QTI 1.2 as far as this system knows it; an item that it does not know is kept as it came. */

export function readQti12(root: Element, path: string): Omit<Held, 'links'> {
  const items = new Map<string, HeldItem>();
  const claim = (el: Element): string => {
    const item = itemOf(el);
    let { id } = item;
    for (let n = 2; items.has(id); n++) id = `${item.id} (${n})`;
    items.set(id, { ...item, id });
    return id;
  };
  const quizzes = deep(root, 'assessment').map((el) => quizOf(el, claim));
  const banks = deep(root, 'objectbank').map((el): HeldBank => ({
    id: attr(el, 'ident') ?? path,
    title: attr(el, 'title') ?? field(el, 'bank_title') ?? '',
    items: deep(el, 'item').map(claim),
  }));
  for (const el of kids(root, 'item')) claim(el);
  return { quizzes, banks, items: [...items.values()] };
}

/** A field of metadata, by its label in any case. */
function field(of: Element, ...labels: readonly string[]): string | null {
  const holders = ['itemmetadata', 'qtimetadata'].flatMap((name) => kids(of, name));
  const fields = holders.flatMap((h) => deep(h, 'qtimetadatafield'));
  for (const label of labels) {
    const found = fields.find((f) => text(kid(f, 'fieldlabel')).trim().toLowerCase() === label);
    if (found) return text(kid(found, 'fieldentry')).trim();
  }
  return null;
}
const numberField = (of: Element, ...labels: readonly string[]): number | null => {
  const said = field(of, ...labels);
  return said === null || !Number.isFinite(Number(said)) ? null : Number(said);
};

function quizOf(el: Element, claim: (item: Element) => string): HeldQuiz {
  const attempts = field(el, 'cc_maxattempts');
  const cut = deep(el, 'decvar')
    .map((d) => attr(d, 'cutvalue'))
    .find((c) => c !== null);
  return {
    id: attr(el, 'ident') ?? '',
    title: attr(el, 'title') ?? '',
    attempts: attempts === 'unlimited' ? 'unlimited' : attempts === null ? null : numberIn(attempts),
    timeLimitMinutes: numberField(el, 'qmd_timelimit'),
    passMark: cut === undefined ? null : numberIn(cut),
    instructions: instructionsOf(el),
    sections: kids(el, 'section').flatMap((s) => sectionsOf(s, '', claim)),
  };
}

function instructionsOf(el: Element): string | null {
  const said = kids(el, 'rubric').flatMap((r) => deep(r, 'material').map(materialHtml));
  return said.length === 0 ? null : said.join('');
}

/** Sections within a section stand beside it, named after both. */
function sectionsOf(el: Element, outside: string, claim: (item: Element) => string): HeldSection[] {
  const title = [outside, attr(el, 'title') ?? ''].filter((t) => t !== '').join(' / ');
  const order = kid(el, 'selection_ordering');
  const selection = order ? kid(order, 'selection') : null;
  const own = kids(el, 'item').map(claim);
  const pick = selection ? text(kid(selection, 'selection_number')).trim() : '';
  const each = selection ? (deep(selection, 'points_each')[0] ?? null) : null;
  const bank = selection ? text(kid(selection, 'sourcebank_ref')).trim() : '';
  const section: HeldSection = {
    title,
    instructions: instructionsOf(el),
    shuffle: order !== null && deep(order, 'order').some((o) => attr(o, 'order_type') === 'Random'),
    items: pick === '' ? own.map((item) => ({ item, weight: 1 })) : [],
    draw:
      pick === ''
        ? null
        : {
            pick: numberIn(pick),
            pool: own,
            bank: bank === '' ? null : bank,
            // Without a word of its own each is worth what its items are; that is looked up once all are read.
            pointsEach: each ? numberIn(text(each)) : NaN,
          },
  };
  const inside = kids(el, 'section').flatMap((s) => sectionsOf(s, title, claim));
  return section.items.length === 0 && !section.draw && inside.length > 0 ? inside : [section, ...inside];
}

function itemOf(el: Element): HeldItem {
  const common = {
    id: attr(el, 'ident') ?? '',
    title: attr(el, 'title') ?? '',
    category: field(el, 'cc_question_category', 'qmd_topic'),
  };
  const declared = numberField(el, 'cc_weighting', 'qmd_maximumscore', 'qmd_weighting');
  try {
    const { body, response } = presentationOf(kid(el, 'presentation'));
    const feedback = kids(el, 'itemfeedback').map((f) => ({
      id: attr(f, 'ident') ?? '',
      text: deep(f, 'material').map(materialHtml).join(''),
    }));
    if (['solution', 'hint'].some((name) => deep(el, name).length > 0)) throw new Unknown('a hint');
    return { ...common, body, ...marked12({ response, item: el, feedback, declared }) };
  } catch (error) {
    if (!(error instanceof Unknown)) throw error;
    const most = deep(el, 'decvar').map((d) => Number(attr(d, 'maxvalue') ?? 0));
    const points = declared ?? Math.max(0, ...most);
    return {
      ...common,
      points,
      body: deep(el, 'material').map(safeHtml).join(' '),
      answer: { kind: 'kept', xml: outer(el), points },
      feedback: [],
    };
  }
}

const safeHtml = (el: Element): string => {
  try {
    return materialHtml(el);
  } catch {
    return escape(text(el));
  }
};

/** What stands before the one place to answer. @throws Unknown where there are several, or text behind it */
function presentationOf(el: Element | null): { body: string; response: Element } {
  const body: string[] = [];
  const responses: Element[] = [];
  const walk = (of: Element): void => {
    for (const child of kids(of)) {
      const name = child.localName ?? '';
      if (name === 'flow') walk(child);
      else if (name.startsWith('response_')) responses.push(child);
      else if (name === 'material' && responses.length === 0) body.push(materialHtml(child));
      else throw new Unknown(name);
    }
  };
  if (el) walk(el);
  if (responses.length !== 1) throw new Unknown('not one response');
  return { body: body.join(''), response: responses[0]! };
}
