import { escapeXml, type Answer, type HeldBank, type HeldItem, type HeldQuiz, type Placed } from '../held.ts';
import { named } from './files.ts';
import { outer, parse } from './xml.ts';

/** Writes QTI 2.1 in this system's own way: correct responses and mappings wherever they say it. */

const NS = 'http://www.imsglobal.org/xsd/imsqti_v2p1';
const document = (content: string): string => `<?xml version="1.0" encoding="UTF-8"?>\n${content}\n`;
/** Items stand in a folder of their own. */
const files = (markup: string): string => named(markup, (path) => `../${encodeURI(path)}`);

export const itemPath = (item: Pick<HeldItem, 'id'>): string => `questions/${item.id}.xml`;

export function writeItem21(item: HeldItem): string {
  const { answer } = item;
  if (answer.kind === 'kept') {
    const el = parse(files(answer.xml).replace(/^<assessmentItem(?=[\s>])/u, `$& xmlns="${NS}"`));
    el.setAttribute('identifier', item.id);
    const xml = outer(el);
    return document(xml.replace(/^<assessmentItem(?=[\s>])/u, `$& xmlns="${NS}"`));
  }
  const body = item.body.includes('<answer/>') ? item.body : `${item.body}${placeFor(answer)}`;
  const shown = item.feedback.map((f) => {
    const test =
      f.on === null
        ? '<baseValue baseType="boolean">true</baseValue>'
        : choiceTest(answer, `<baseValue baseType="identifier">${escapeXml(f.on)}</baseValue>`);
    return `<responseCondition><responseIf>${test}<setOutcomeValue identifier="FEEDBACK"><multiple><variable identifier="FEEDBACK"/><baseValue baseType="identifier">${escapeXml(f.id)}</baseValue></multiple></setOutcomeValue></responseIf></responseCondition>`;
  });
  const said = item.feedback.map(
    (f) =>
      `<modalFeedback outcomeIdentifier="FEEDBACK" identifier="${escapeXml(f.id)}" showHide="show">${files(f.text)}</modalFeedback>`,
  );
  const outcome =
    item.feedback.length > 0
      ? '<outcomeDeclaration identifier="FEEDBACK" cardinality="multiple" baseType="identifier"/>'
      : '';
  const rules = [...shown, ...rulesOf(answer, item.points)];
  const processing = rules.length === 0 ? '' : `<responseProcessing>${rules.join('')}</responseProcessing>`;
  return document(
    `<assessmentItem xmlns="${NS}" identifier="${item.id}" title="${escapeXml(item.title)}" adaptive="false" timeDependent="false">${declaration(answer)}<outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float" normalMaximum="${item.points}"><defaultValue><value>0</value></defaultValue></outcomeDeclaration>${outcome}<itemBody>${files(body).replace('<answer/>', () => interaction(answer))}</itemBody>${processing}${said.join('')}</assessmentItem>`,
  );
}

type Known = Exclude<Answer, { kind: 'kept' }>;

/** What is written stands in a line of its own; choices and long texts are blocks. */
const placeFor = (answer: Known): string =>
  answer.kind === 'text' || answer.kind === 'number' ? '<p><answer/></p>' : '<answer/>';

const choiceTest = (answer: Known, value: string): string =>
  answer.kind === 'choice' && answer.maxChoices !== 1
    ? `<member>${value}<variable identifier="RESPONSE"/></member>`
    : `<match><variable identifier="RESPONSE"/>${value}</match>`;

function interaction(answer: Known): string {
  switch (answer.kind) {
    case 'choice': {
      const prompt = answer.prompt === null ? '' : `<prompt>${files(answer.prompt)}</prompt>`;
      const choices = answer.choices.map(
        (c) =>
          `<simpleChoice identifier="${escapeXml(c.id)}"${c.fixed ? ' fixed="true"' : ''}>${files(c.text)}</simpleChoice>`,
      );
      return `<choiceInteraction responseIdentifier="RESPONSE" shuffle="${answer.shuffle}" maxChoices="${answer.maxChoices}">${prompt}${choices.join('')}</choiceInteraction>`;
    }
    case 'essay':
      return '<extendedTextInteraction responseIdentifier="RESPONSE" expectedLines="15"/>';
    default:
      return '<textEntryInteraction responseIdentifier="RESPONSE" expectedLength="20"/>';
  }
}

const values = (list: readonly (string | number)[]): string =>
  list.length === 0
    ? ''
    : `<correctResponse>${list.map((v) => `<value>${escapeXml(String(v))}</value>`).join('')}</correctResponse>`;

function declaration(answer: Known): string {
  const of = (cardinality: string, baseType: string, inside: string): string =>
    `<responseDeclaration identifier="RESPONSE" cardinality="${cardinality}" baseType="${baseType}">${inside}</responseDeclaration>`;
  switch (answer.kind) {
    case 'choice': {
      const { marking, choices } = answer;
      const cardinality = answer.maxChoices === 1 ? 'single' : 'multiple';
      if (marking.by === 'all') return of(cardinality, 'identifier', values(marking.right));
      const worth = (id: string): number => marking.worth[id] ?? 0;
      const right = choices.map((c) => c.id).filter((id) => worth(id) > 0);
      const entries = choices
        .filter((c) => worth(c.id) !== 0)
        .map((c) => `<mapEntry mapKey="${escapeXml(c.id)}" mappedValue="${worth(c.id)}"/>`);
      const best = [...right].sort((a, b) => worth(b) - worth(a)).slice(0, 1);
      const bounds = `${marking.least === null ? '' : ` lowerBound="${marking.least}"`}${marking.most === null ? '' : ` upperBound="${marking.most}"`}`;
      return of(
        cardinality,
        'identifier',
        `${values(answer.maxChoices === 1 ? best : right)}<mapping defaultValue="0"${bounds}>${entries.join('')}</mapping>`,
      );
    }
    case 'text': {
      const entries = answer.accepted.map(
        (a) =>
          `<mapEntry mapKey="${escapeXml(a.text)}" mappedValue="${a.worth}" caseSensitive="${a.caseSensitive}"/>`,
      );
      return of(
        'single',
        'string',
        `${values(answer.accepted.slice(0, 1).map((a) => a.text))}<mapping defaultValue="0">${entries.join('')}</mapping>`,
      );
    }
    case 'number': {
      const exact = answer.accepted[0]?.exact ?? null;
      return of('single', 'float', values(exact === null ? [] : [exact]));
    }
    case 'essay':
      return of('single', 'string', '');
  }
}

const setScore = (worth: number): string =>
  `<setOutcomeValue identifier="SCORE"><baseValue baseType="float">${worth}</baseValue></setOutcomeValue>`;
const MAPPED = '<setOutcomeValue identifier="SCORE"><mapResponse identifier="RESPONSE"/></setOutcomeValue>';

function rulesOf(answer: Known, points: number): string[] {
  switch (answer.kind) {
    case 'essay':
      return [];
    case 'text':
      return [MAPPED];
    case 'choice':
      if (answer.marking.by === 'each') return [MAPPED];
      return answer.marking.right.length === 0
        ? []
        : [
            `<responseCondition><responseIf><match><variable identifier="RESPONSE"/><correct identifier="RESPONSE"/></match>${setScore(points)}</responseIf><responseElse>${setScore(0)}</responseElse></responseCondition>`,
          ];
    case 'number': {
      const limit = (test: string, value: number): string =>
        `<${test}><variable identifier="RESPONSE"/><baseValue baseType="float">${value}</baseValue></${test}>`;
      const branches = answer.accepted.map((a, at) => {
        const test =
          a.low === a.high
            ? `<equal toleranceMode="exact"><variable identifier="RESPONSE"/><baseValue baseType="float">${a.low}</baseValue></equal>`
            : `<and>${limit(a.includesLow ? 'gte' : 'gt', a.low)}${limit(a.includesHigh ? 'lte' : 'lt', a.high)}</and>`;
        const branch = at === 0 ? 'responseIf' : 'responseElseIf';
        return `<${branch}>${test}${setScore(a.worth)}</${branch}>`;
      });
      return [`<responseCondition>${branches.join('')}</responseCondition>`];
    }
  }
}

/** What an item counts beyond its own marks: one that is kept as it came is worth something else by a weight. */
const ownWeight = (item: HeldItem): number =>
  item.answer.kind === 'kept' && item.answer.points > 0 ? item.points / item.answer.points : 1;

const reference = (item: HeldItem, weight: number): string => {
  const counts = weight * ownWeight(item);
  const written = counts === 1 ? '' : `<weight identifier="WEIGHT" value="${counts}"/>`;
  return `<assessmentItemRef identifier="${item.id}" href="../${itemPath(item)}">${written}</assessmentItemRef>`;
};

export function writeBank21(bank: HeldBank, items: ReadonlyMap<string, HeldItem>): string {
  const refs = bank.items.map((id) => reference(items.get(id)!, 1));
  return document(
    `<assessmentSection xmlns="${NS}" identifier="${bank.id}" title="${escapeXml(bank.title)}" visible="true">${refs.join('')}</assessmentSection>`,
  );
}

export function writeTest21(quiz: HeldQuiz, items: ReadonlyMap<string, HeldItem>): string {
  const rubric = (markup: string | null): string =>
    markup === null ? '' : `<rubricBlock view="candidate">${files(blocks(markup))}</rubricBlock>`;
  const refs = (placed: readonly Placed[]): string =>
    placed.map((p) => reference(items.get(p.item)!, p.weight)).join('');
  const sections = quiz.sections.map((s, at) => {
    const { draw } = s;
    const drawn = (draw?.pool ?? []).map((id) => {
      const { points } = items.get(id)!;
      return { item: id, weight: points > 0 ? draw!.pointsEach / points : 1 };
    });
    const id = `${quiz.id}_part${at + 1}`;
    const order = s.shuffle ? '<ordering shuffle="true"/>' : '';
    const of = (own: string, ident: string, select: string, first: boolean): string =>
      `<assessmentSection identifier="${ident}" title="${escapeXml(s.title)}" visible="true">${first && at === 0 ? rubric(quiz.instructions) : ''}${first ? rubric(s.instructions) : ''}${select}${order}${own}</assessmentSection>`;
    const fixed = draw && s.items.length === 0 ? '' : of(refs(s.items), id, '', true);
    return draw
      ? `${fixed}${of(refs(drawn), `${id}d`, `<selection select="${draw.pick}"/>`, fixed === '')}`
      : fixed;
  });
  const attempts =
    quiz.attempts === null
      ? ''
      : `<itemSessionControl maxAttempts="${quiz.attempts === 'unlimited' ? 0 : quiz.attempts}"/>`;
  const time = quiz.timeLimitMinutes === null ? '' : `<timeLimits maxTime="${quiz.timeLimitMinutes * 60}"/>`;
  const pass = quiz.passMark === null ? '' : ` masteryValue="${quiz.passMark}"`;
  return document(
    `<assessmentTest xmlns="${NS}" identifier="${quiz.id}" title="${escapeXml(quiz.title)}"><outcomeDeclaration identifier="SCORE" cardinality="single" baseType="float"${pass}/>${time}<testPart identifier="part" navigationMode="nonlinear" submissionMode="simultaneous">${attempts}${sections.join('')}</testPart><outcomeProcessing><setOutcomeValue identifier="SCORE"><sum><testVariables variableIdentifier="SCORE" weightIdentifier="WEIGHT"/></sum></setOutcomeValue></outcomeProcessing></assessmentTest>`,
  );
}

/** A rubric block holds blocks: text alone becomes a paragraph. */
const blocks = (markup: string): string => (/^\s*</u.test(markup) ? markup : `<p>${markup}</p>`);
