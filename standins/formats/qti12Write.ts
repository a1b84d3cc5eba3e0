import { escapeXml, type Answer, type Held, type HeldBank, type HeldItem, type HeldQuiz } from '../held.ts';
import { named } from './files.ts';
import { deep, kid, kids, outer, parse, text } from './xml.ts';

/** Writes QTI 1.2 in this system's own way: one rule a line, scores in points. */

const field = (label: string, value: string | number): string =>
  `<qtimetadatafield><fieldlabel>${label}</fieldlabel><fieldentry>${escapeXml(String(value))}</fieldentry></qtimetadatafield>`;
const html = (markup: string): string =>
  `<material><mattext texttype="text/html">${escapeXml(named(markup, encodeURI))}</mattext></material>`;
const rubric = (markup: string | null): string =>
  markup === null ? '' : `<rubric view="Candidate">${html(markup)}</rubric>`;
const document = (content: string): string =>
  `<?xml version="1.0" encoding="UTF-8"?>\n<questestinterop xmlns="http://www.imsglobal.org/xsd/ims_qtiasiv1p2">${content}</questestinterop>\n`;

export function writeQuiz12(quiz: HeldQuiz, { items, banks }: Held): string {
  const byId = new Map(items.map((i) => [i.id, i]));
  const write = (ids: readonly string[]): string => ids.map((id) => writeItem12(byId.get(id)!)).join('\n');
  const sections = quiz.sections.map((s, at) => {
    const ident = `${quiz.id}_s${at + 1}`;
    const order = s.shuffle ? '<order order_type="Random"/>' : '';
    const head = (id: string): string => `<section ident="${id}" title="${escapeXml(s.title)}">`;
    const fixed = s.items.map((p) => p.item);
    const plain =
      s.draw && fixed.length === 0
        ? ''
        : `${head(ident)}${rubric(s.instructions)}${order ? `<selection_ordering>${order}</selection_ordering>` : ''}${write(fixed)}</section>`;
    if (!s.draw) return plain;
    const { bank, pick, pool, pointsEach } = s.draw;
    const there = banks.some((b) => b.id === bank);
    const source = there ? `<sourcebank_ref>${bank}</sourcebank_ref>` : '';
    return `${plain}${head(`${ident}_draw`)}${plain === '' ? rubric(s.instructions) : ''}<selection_ordering><selection>${source}<selection_number>${pick}</selection_number><selection_extension><points_each>${pointsEach}</points_each></selection_extension></selection>${order}</selection_ordering>${there ? '' : write(pool)}</section>`;
  });
  const settings = [
    quiz.attempts === null ? '' : field('cc_maxattempts', quiz.attempts),
    quiz.timeLimitMinutes === null ? '' : field('qmd_timelimit', quiz.timeLimitMinutes),
  ].join('');
  const pass =
    quiz.passMark === null
      ? ''
      : `<outcomes_processing scoremodel="SumOfScores"><outcomes><decvar varname="SCORE" vartype="Decimal" cutvalue="${quiz.passMark}"/></outcomes></outcomes_processing>`;
  return document(
    `<assessment ident="${quiz.id}" title="${escapeXml(quiz.title)}">${settings === '' ? '' : `<qtimetadata>${settings}</qtimetadata>`}${rubric(quiz.instructions)}${pass}${sections.join('')}</assessment>`,
  );
}

export function writeBank12(bank: HeldBank, items: readonly HeldItem[]): string {
  const byId = new Map(items.map((i) => [i.id, i]));
  const title = bank.title === '' ? '' : `<qtimetadata>${field('bank_title', bank.title)}</qtimetadata>`;
  return document(
    `<objectbank ident="${bank.id}">${title}${bank.items.map((id) => writeItem12(byId.get(id)!)).join('\n')}</objectbank>`,
  );
}

export function writeItem12(item: HeldItem): string {
  const { answer } = item;
  if (answer.kind === 'kept') return keptItem(item, answer);
  const shown = item.feedback.map(
    (f) =>
      `<respcondition continue="Yes"><conditionvar>${f.on === null ? '<other/>' : equal(f.on)}</conditionvar><displayfeedback feedbacktype="Response" linkrefid="${escapeXml(f.id)}"/></respcondition>`,
  );
  const bounds =
    answer.kind === 'choice' && answer.marking.by === 'each'
      ? `${answer.marking.least === null ? '' : ` minvalue="${answer.marking.least}"`}${answer.marking.most === null ? '' : ` maxvalue="${answer.marking.most}"`}`
      : ` minvalue="0" maxvalue="${item.points}"`;
  const category = item.category === null ? '' : field('qmd_topic', item.category);
  return `<item ident="${escapeXml(item.id)}" title="${escapeXml(item.title)}"><itemmetadata><qtimetadata>${field('qmd_weighting', item.points)}${category}</qtimetadata></itemmetadata><presentation>${html(item.body)}${responseXml(answer)}</presentation><resprocessing><outcomes><decvar varname="SCORE" vartype="Decimal" defaultval="0"${bounds}/></outcomes>${shown.join('')}${rulesOf(answer, item.points).join('')}</resprocessing>${item.feedback.map((f) => `<itemfeedback ident="${escapeXml(f.id)}"><flow_mat>${html(f.text)}</flow_mat></itemfeedback>`).join('')}</item>`;
}

function responseXml(answer: Exclude<Answer, { kind: 'kept' }>): string {
  switch (answer.kind) {
    case 'choice': {
      const labels = answer.choices.map(
        (c) =>
          `<response_label ident="${escapeXml(c.id)}"${c.fixed ? ' rshuffle="No"' : ''}><flow_mat>${html(c.text)}</flow_mat></response_label>`,
      );
      const most = answer.maxChoices > 1 ? ` maxnumber="${answer.maxChoices}"` : '';
      return `<response_lid ident="ANSWER" rcardinality="${answer.maxChoices === 1 ? 'Single' : 'Multiple'}"><render_choice shuffle="${answer.shuffle ? 'Yes' : 'No'}"${most}>${labels.join('')}</render_choice></response_lid>`;
    }
    case 'text':
      return '<response_str ident="ANSWER" rcardinality="Single"><render_fib fibtype="String" prompt="Box" rows="1"/></response_str>';
    case 'number':
      return '<response_num ident="ANSWER" numtype="Decimal" rcardinality="Single"><render_fib fibtype="Decimal" prompt="Box"/></response_num>';
    case 'essay':
      return '<response_str ident="ANSWER" rcardinality="Single"><render_fib fibtype="String" prompt="Box" rows="15" columns="80"/></response_str>';
  }
}

const equal = (value: string, extra = ''): string =>
  `<varequal respident="ANSWER"${extra}>${escapeXml(value)}</varequal>`;
const rule = (test: string, worth: number, action = 'Set', goesOn = false): string =>
  `<respcondition${goesOn ? ' continue="Yes"' : ''}><conditionvar>${test}</conditionvar><setvar varname="SCORE" action="${action}">${worth}</setvar></respcondition>`;

function rulesOf(answer: Exclude<Answer, { kind: 'kept' }>, points: number): string[] {
  switch (answer.kind) {
    case 'essay':
      return [];
    case 'text':
      return answer.accepted.map((a) => rule(equal(a.text, a.caseSensitive ? ' case="Yes"' : ''), a.worth));
    case 'number':
      return answer.accepted.map((a) => {
        if (a.low === a.high) return rule(equal(String(a.low)), a.worth);
        const low = a.includesLow ? 'vargte' : 'vargt';
        const high = a.includesHigh ? 'varlte' : 'varlt';
        const range = `<and><${low} respident="ANSWER">${a.low}</${low}><${high} respident="ANSWER">${a.high}</${high}></and>`;
        return rule(a.exact === null ? range : `<or>${equal(String(a.exact))}${range}</or>`, a.worth);
      });
    case 'choice': {
      const { marking, choices, maxChoices } = answer;
      if (marking.by === 'each')
        return choices
          .filter((c) => (marking.worth[c.id] ?? 0) !== 0)
          .map((c) => rule(equal(c.id), marking.worth[c.id]!, 'Add', true));
      if (marking.right.length === 0) return [];
      if (maxChoices === 1) return [rule(equal(marking.right[0]!), points)];
      const wrong = choices.filter((c) => !marking.right.includes(c.id)).map((c) => equal(c.id));
      const none = wrong.length === 0 ? '' : `<not><or>${wrong.join('')}</or></not>`;
      return [rule(`<and>${marking.right.map((id) => equal(id)).join('')}${none}</and>`, points)];
    }
  }
}

const WORTH = ['cc_weighting', 'qmd_maximumscore', 'qmd_weighting'];

/** As it came, under the name it has here, and worth what it is worth here. */
function keptItem(item: HeldItem, answer: Extract<Answer, { kind: 'kept' }>): string {
  const el = parse(named(answer.xml, encodeURI));
  el.setAttribute('ident', item.id);
  const fields = deep(el, 'qtimetadatafield');
  const found = WORTH.flatMap((label) => fields.filter((f) => text(kid(f, 'fieldlabel')) === label))[0];
  const entry = found && kid(found, 'fieldentry');
  if (entry) entry.textContent = String(item.points);
  else if (item.points !== answer.points) {
    const own = parse(
      `<itemmetadata><qtimetadata>${field('qmd_maximumscore', item.points)}</qtimetadata></itemmetadata>`,
    );
    const first = kids(el)[0] ?? null;
    el.insertBefore(el.ownerDocument!.importNode(own, true), first);
  }
  return outer(el);
}
