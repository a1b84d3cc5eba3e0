import { escape } from '../../demo/qti12.ts';
import {
  type Answer,
  type Held,
  type HeldBank,
  type HeldDraw,
  type HeldItem,
  type HeldQuiz,
  type HeldSection,
  type Marking,
} from '../held.ts';
import { named } from './files.ts';
import { deep, kid, kids, outer, parse, tag, text, xmlDocument } from './xml.ts';

/** Writes QTI 1.2 in this system's own way: one rule a line, scores in points. */

const field = (label: string, value: string | number): string =>
  tag('qtimetadatafield', {}, tag('fieldlabel', {}, label), tag('fieldentry', {}, escape(String(value))));
const html = (markup: string): string =>
  tag('material', {}, tag('mattext', { texttype: 'text/html' }, escape(named(markup, encodeURI))));
const rubric = (markup: string | null): string =>
  markup === null ? '' : tag('rubric', { view: 'Candidate' }, html(markup));
const document = (content: string): string =>
  xmlDocument(tag('questestinterop', { xmlns: 'http://www.imsglobal.org/xsd/ims_qtiasiv1p2' }, content));
/** Metadata, where there is any. */
const fields = (...inside: readonly string[]): string =>
  inside.join('') === '' ? '' : tag('qtimetadata', {}, ...inside);

export function writeQuiz12(quiz: HeldQuiz, { items, banks }: Held): string {
  const byId = new Map(items.map((i) => [i.id, i]));
  const write = (ids: readonly string[]): string => ids.map((id) => writeItem12(byId.get(id)!)).join('\n');
  const there = new Set(banks.map((b) => b.id));
  const sections = quiz.sections.map((s, at) => sectionXml(s, `${quiz.id}_s${at + 1}`, there, write));
  const score = { varname: 'SCORE', vartype: 'Decimal', cutvalue: quiz.passMark };
  const pass =
    quiz.passMark === null
      ? ''
      : tag('outcomes_processing', { scoremodel: 'SumOfScores' }, tag('outcomes', {}, tag('decvar', score)));
  const settings = fields(
    quiz.attempts === null ? '' : field('cc_maxattempts', quiz.attempts),
    quiz.timeLimitMinutes === null ? '' : field('qmd_timelimit', quiz.timeLimitMinutes),
  );
  const { id, title } = quiz;
  return document(
    tag('assessment', { ident: id, title }, settings, rubric(quiz.instructions), pass, ...sections),
  );
}

/** Fixed items and a draw stand in sections of their own. */
function sectionXml(
  { title, instructions, shuffle, items, draw }: HeldSection,
  ident: string,
  banks: ReadonlySet<string>,
  write: (ids: readonly string[]) => string,
): string {
  const order = shuffle ? tag('order', { order_type: 'Random' }) : '';
  const fixed =
    draw && items.length === 0
      ? ''
      : tag(
          'section',
          { ident, title },
          rubric(instructions),
          order === '' ? '' : tag('selection_ordering', {}, order),
          write(items.map((p) => p.item)),
        );
  if (!draw) return fixed;
  const there = draw.bank !== null && banks.has(draw.bank);
  const drawn = tag(
    'section',
    { ident: `${ident}_draw`, title },
    fixed === '' ? rubric(instructions) : '',
    tag('selection_ordering', {}, selectionXml(draw, there), order),
    there ? '' : write(draw.pool),
  );
  return fixed + drawn;
}

/** @param there whether the bank goes along; else the pool stands in the section itself */
const selectionXml = ({ bank, pick, pointsEach }: HeldDraw, there: boolean): string =>
  tag(
    'selection',
    {},
    there ? tag('sourcebank_ref', {}, bank!) : '',
    tag('selection_number', {}, String(pick)),
    tag('selection_extension', {}, tag('points_each', {}, String(pointsEach))),
  );

export function writeBank12(bank: HeldBank, items: readonly HeldItem[]): string {
  const byId = new Map(items.map((i) => [i.id, i]));
  const inside = bank.items.map((id) => writeItem12(byId.get(id)!)).join('\n');
  const title = bank.title === '' ? '' : fields(field('bank_title', bank.title));
  return document(tag('objectbank', { ident: bank.id }, title, inside));
}

function writeItem12(item: HeldItem): string {
  const { answer } = item;
  if (answer.kind === 'kept') return keptItem(item, answer);
  const bounds =
    answer.kind === 'choice' && answer.marking.by === 'each'
      ? { minvalue: answer.marking.least, maxvalue: answer.marking.most }
      : { minvalue: 0, maxvalue: item.points };
  const score = { varname: 'SCORE', vartype: 'Decimal', defaultval: 0, ...bounds };
  const metadata = fields(
    field('qmd_weighting', item.points),
    item.category === null ? '' : field('qmd_topic', item.category),
  );
  return tag(
    'item',
    { ident: item.id, title: item.title },
    tag('itemmetadata', {}, metadata),
    tag('presentation', {}, html(item.body), responseXml(answer)),
    tag(
      'resprocessing',
      {},
      tag('outcomes', {}, tag('decvar', score)),
      ...item.feedback.map((f) => shownRule(f.on, f.id)),
      ...rulesOf(answer, item.points),
    ),
    ...item.feedback.map((f) => tag('itemfeedback', { ident: f.id }, tag('flow_mat', {}, html(f.text)))),
  );
}

type Known = Exclude<Answer, { kind: 'kept' }>;
const ANSWER = 'ANSWER';

function responseXml(answer: Known): string {
  const single = { ident: ANSWER, rcardinality: 'Single' };
  switch (answer.kind) {
    case 'choice':
      return choiceXml(answer);
    case 'text':
      return tag('response_str', single, tag('render_fib', { fibtype: 'String', prompt: 'Box', rows: 1 }));
    case 'number':
      return tag(
        'response_num',
        { ...single, numtype: 'Decimal' },
        tag('render_fib', { fibtype: 'Decimal', prompt: 'Box' }),
      );
    case 'essay':
      return tag(
        'response_str',
        single,
        tag('render_fib', { fibtype: 'String', prompt: 'Box', rows: 15, columns: 80 }),
      );
  }
}

function choiceXml({ choices, shuffle, maxChoices }: Extract<Answer, { kind: 'choice' }>): string {
  const labels = choices.map((c) =>
    tag(
      'response_label',
      { ident: c.id, rshuffle: c.fixed ? 'No' : null },
      tag('flow_mat', {}, html(c.text)),
    ),
  );
  const render = { shuffle: shuffle ? 'Yes' : 'No', maxnumber: maxChoices > 1 ? maxChoices : null };
  return tag(
    'response_lid',
    { ident: ANSWER, rcardinality: maxChoices === 1 ? 'Single' : 'Multiple' },
    tag('render_choice', render, ...labels),
  );
}

const equal = (value: string, caseSensitive = false): string =>
  tag('varequal', { respident: ANSWER, case: caseSensitive ? 'Yes' : null }, escape(value));
const rule = (test: string, worth: number, action = 'Set', goesOn = false): string =>
  tag(
    'respcondition',
    { continue: goesOn ? 'Yes' : null },
    tag('conditionvar', {}, test),
    tag('setvar', { varname: 'SCORE', action }, String(worth)),
  );
const shownRule = (on: string | null, feedback: string): string =>
  tag(
    'respcondition',
    { continue: 'Yes' },
    tag('conditionvar', {}, on === null ? tag('other') : equal(on)),
    tag('displayfeedback', { feedbacktype: 'Response', linkrefid: feedback }),
  );

function rulesOf(answer: Known, points: number): string[] {
  switch (answer.kind) {
    case 'essay':
      return [];
    case 'text':
      return answer.accepted.map((a) => rule(equal(a.text, a.caseSensitive), a.worth));
    case 'number':
      return answer.accepted.map((a) => {
        if (a.low === a.high) return rule(equal(String(a.low)), a.worth);
        const end = (name: string, value: number): string => tag(name, { respident: ANSWER }, String(value));
        const range = tag(
          'and',
          {},
          end(a.includesLow ? 'vargte' : 'vargt', a.low),
          end(a.includesHigh ? 'varlte' : 'varlt', a.high),
        );
        return rule(a.exact === null ? range : tag('or', {}, equal(String(a.exact)), range), a.worth);
      });
    case 'choice': {
      const ids = answer.choices.map((c) => c.id);
      return choiceRules(answer.marking, ids, answer.maxChoices === 1, points);
    }
  }
}

function choiceRules(marking: Marking, ids: readonly string[], single: boolean, points: number): string[] {
  if (marking.by === 'each')
    return ids
      .filter((id) => (marking.worth[id] ?? 0) !== 0)
      .map((id) => rule(equal(id), marking.worth[id]!, 'Add', true));
  const [first] = marking.right;
  if (first === undefined) return [];
  if (single) return [rule(equal(first), points)];
  const wrong = ids.filter((id) => !marking.right.includes(id)).map((id) => equal(id));
  const none = wrong.length === 0 ? '' : tag('not', {}, tag('or', {}, ...wrong));
  return [rule(tag('and', {}, ...marking.right.map((id) => equal(id)), none), points)];
}

const WORTH = ['cc_weighting', 'qmd_maximumscore', 'qmd_weighting'];

/** As it came, under the name it has here, and worth what it is worth here. */
function keptItem(item: HeldItem, answer: Extract<Answer, { kind: 'kept' }>): string {
  const el = parse(named(answer.xml, encodeURI));
  el.setAttribute('ident', item.id);
  const held = deep(el, 'qtimetadatafield');
  const found = WORTH.flatMap((label) => held.filter((f) => text(kid(f, 'fieldlabel')) === label))[0];
  const entry = found && kid(found, 'fieldentry');
  if (entry) entry.textContent = String(item.points);
  else if (item.points !== answer.points) {
    const own = parse(tag('itemmetadata', {}, fields(field('qmd_maximumscore', item.points))));
    el.insertBefore(el.ownerDocument!.importNode(own, true), kids(el)[0] ?? null);
  }
  return outer(el);
}
