import { escape } from '../../demo/qti12.ts';
import {
  type Answer,
  type HeldBank,
  type HeldItem,
  type HeldQuiz,
  type HeldSection,
  type Placed,
} from '../held.ts';
import { named } from './files.ts';
import { outer, parse, tag, xmlDocument } from './xml.ts';

/** Writes QTI 2.1 in this system's own way: correct responses and mappings wherever they say it. */

const NS = 'http://www.imsglobal.org/xsd/imsqti_v2p1';
/** Items stand in a folder of their own. */
const files = (markup: string): string => named(markup, (path) => `../${encodeURI(path)}`);

export const itemPath = (item: Pick<HeldItem, 'id'>): string => `questions/${item.id}.xml`;

type Known = Exclude<Answer, { kind: 'kept' }>;

export function writeItem21(item: HeldItem): string {
  const { answer } = item;
  if (answer.kind === 'kept') return keptItem(item, answer.xml);
  const body = item.body.includes('<answer/>') ? item.body : `${item.body}${placeFor(answer)}`;
  const rules = [...item.feedback.map((f) => shownRule(answer, f.on, f.id)), ...rulesOf(answer, item.points)];
  const feedback = item.feedback.map((f) =>
    tag(
      'modalFeedback',
      { outcomeIdentifier: 'FEEDBACK', identifier: f.id, showHide: 'show' },
      files(f.text),
    ),
  );
  const { id: identifier, title } = item;
  return xmlDocument(
    tag(
      'assessmentItem',
      { xmlns: NS, identifier, title, adaptive: false, timeDependent: false },
      declaration(answer),
      outcome('SCORE', { normalMaximum: item.points }, tag('defaultValue', {}, tag('value', {}, '0'))),
      feedback.length > 0
        ? tag('outcomeDeclaration', {
            identifier: 'FEEDBACK',
            cardinality: 'multiple',
            baseType: 'identifier',
          })
        : '',
      tag(
        'itemBody',
        {},
        files(body).replace('<answer/>', () => interaction(answer)),
      ),
      rules.length === 0 ? '' : tag('responseProcessing', {}, ...rules),
      ...feedback,
    ),
  );
}

const outcome = (identifier: string, more: Parameters<typeof tag>[1], ...inside: readonly string[]): string =>
  tag('outcomeDeclaration', { identifier, cardinality: 'single', baseType: 'float', ...more }, ...inside);

/** As it came, under the name it has here. */
function keptItem(item: HeldItem, xml: string): string {
  const inNamespace = (source: string): string =>
    source.replace(/^<assessmentItem(?=[\s>])/u, `$& xmlns="${NS}"`);
  const el = parse(inNamespace(files(xml)));
  el.setAttribute('identifier', item.id);
  return xmlDocument(inNamespace(outer(el)));
}

/** What is written stands in a line of its own; choices and long texts are blocks. */
const placeFor = (answer: Known): string =>
  answer.kind === 'text' || answer.kind === 'number' ? '<p><answer/></p>' : '<answer/>';

const RESPONSE = tag('variable', { identifier: 'RESPONSE' });
const value = (baseType: string, said: string | number): string =>
  tag('baseValue', { baseType }, escape(String(said)));

function shownRule(answer: Known, on: string | null, feedback: string): string {
  const several = answer.kind === 'choice' && answer.maxChoices !== 1;
  const choice = on === null ? '' : value('identifier', on);
  const test =
    on === null
      ? value('boolean', 'true')
      : several
        ? tag('member', {}, choice, RESPONSE)
        : tag('match', {}, RESPONSE, choice);
  const shown = tag(
    'multiple',
    {},
    tag('variable', { identifier: 'FEEDBACK' }),
    value('identifier', feedback),
  );
  const set = tag('setOutcomeValue', { identifier: 'FEEDBACK' }, shown);
  return tag('responseCondition', {}, tag('responseIf', {}, test, set));
}

function interaction(answer: Known): string {
  const response = { responseIdentifier: 'RESPONSE' };
  switch (answer.kind) {
    case 'choice': {
      const { shuffle, maxChoices } = answer;
      return tag(
        'choiceInteraction',
        { ...response, shuffle, maxChoices },
        answer.prompt === null ? '' : tag('prompt', {}, files(answer.prompt)),
        ...answer.choices.map((c) =>
          tag('simpleChoice', { identifier: c.id, fixed: c.fixed || null }, files(c.text)),
        ),
      );
    }
    case 'essay':
      return tag('extendedTextInteraction', { ...response, expectedLines: 15 });
    default:
      return tag('textEntryInteraction', { ...response, expectedLength: 20 });
  }
}

const correct = (list: readonly (string | number)[]): string =>
  list.length === 0
    ? ''
    : tag('correctResponse', {}, ...list.map((v) => tag('value', {}, escape(String(v)))));

function declaration(answer: Known): string {
  const of = (cardinality: string, baseType: string, ...inside: readonly string[]): string =>
    tag('responseDeclaration', { identifier: 'RESPONSE', cardinality, baseType }, ...inside);
  switch (answer.kind) {
    case 'choice':
      return of(answer.maxChoices === 1 ? 'single' : 'multiple', 'identifier', ...choiceKey(answer));
    case 'text': {
      const entries = answer.accepted.map((a) =>
        tag('mapEntry', { mapKey: a.text, mappedValue: a.worth, caseSensitive: a.caseSensitive }),
      );
      const [first] = answer.accepted;
      return of(
        'single',
        'string',
        correct(first ? [first.text] : []),
        tag('mapping', { defaultValue: 0 }, ...entries),
      );
    }
    case 'number': {
      const exact = answer.accepted[0]?.exact ?? null;
      return of('single', 'float', correct(exact === null ? [] : [exact]));
    }
    case 'essay':
      return of('single', 'string');
  }
}

/** What is right, and what each choice gives where that is said choice by choice. */
function choiceKey({ marking, choices, maxChoices }: Extract<Answer, { kind: 'choice' }>): string[] {
  if (marking.by === 'all') return [correct(marking.right)];
  const worth = (id: string): number => marking.worth[id] ?? 0;
  const ids = choices.map((c) => c.id);
  const right = ids.filter((id) => worth(id) > 0);
  const best = [...right].sort((a, b) => worth(b) - worth(a)).slice(0, 1);
  const entries = ids
    .filter((id) => worth(id) !== 0)
    .map((id) => tag('mapEntry', { mapKey: id, mappedValue: worth(id) }));
  const { least: lowerBound, most: upperBound } = marking;
  return [
    correct(maxChoices === 1 ? best : right),
    tag('mapping', { defaultValue: 0, lowerBound, upperBound }, ...entries),
  ];
}

const setScore = (worth: number): string =>
  tag('setOutcomeValue', { identifier: 'SCORE' }, value('float', worth));
const MAPPED = tag(
  'setOutcomeValue',
  { identifier: 'SCORE' },
  tag('mapResponse', { identifier: 'RESPONSE' }),
);

function rulesOf(answer: Known, points: number): string[] {
  switch (answer.kind) {
    case 'essay':
      return [];
    case 'text':
      return [MAPPED];
    case 'choice': {
      if (answer.marking.by === 'each') return [MAPPED];
      if (answer.marking.right.length === 0) return [];
      const test = tag('match', {}, RESPONSE, tag('correct', { identifier: 'RESPONSE' }));
      const [right, wrong] = [
        tag('responseIf', {}, test, setScore(points)),
        tag('responseElse', {}, setScore(0)),
      ];
      return [tag('responseCondition', {}, right, wrong)];
    }
    case 'number': {
      const limit = (test: string, at: number): string => tag(test, {}, RESPONSE, value('float', at));
      const branches = answer.accepted.map((a, at) => {
        const test =
          a.low === a.high
            ? tag('equal', { toleranceMode: 'exact' }, RESPONSE, value('float', a.low))
            : tag(
                'and',
                {},
                limit(a.includesLow ? 'gte' : 'gt', a.low),
                limit(a.includesHigh ? 'lte' : 'lt', a.high),
              );
        return tag(at === 0 ? 'responseIf' : 'responseElseIf', {}, test, setScore(a.worth));
      });
      return [tag('responseCondition', {}, ...branches)];
    }
  }
}

/** What an item counts beyond its own marks: one that is kept as it came is worth something else by a weight. */
const ownWeight = (item: HeldItem): number =>
  item.answer.kind === 'kept' && item.answer.points > 0 ? item.points / item.answer.points : 1;

function reference(item: HeldItem, weight: number): string {
  const counts = weight * ownWeight(item);
  return tag(
    'assessmentItemRef',
    { identifier: item.id, href: `../${itemPath(item)}` },
    counts === 1 ? '' : tag('weight', { identifier: 'WEIGHT', value: counts }),
  );
}

export function writeBank21(
  { id, title, items: inside }: HeldBank,
  items: ReadonlyMap<string, HeldItem>,
): string {
  const refs = inside.map((item) => reference(items.get(item)!, 1));
  return xmlDocument(tag('assessmentSection', { xmlns: NS, identifier: id, title, visible: true }, ...refs));
}

export function writeTest21(quiz: HeldQuiz, items: ReadonlyMap<string, HeldItem>): string {
  const sections = quiz.sections.map((s, at) =>
    sectionXml(s, `${quiz.id}_part${at + 1}`, at === 0 ? quiz.instructions : null, items),
  );
  const { id: identifier, title, attempts, timeLimitMinutes, passMark } = quiz;
  const sum = tag(
    'sum',
    {},
    tag('testVariables', { variableIdentifier: 'SCORE', weightIdentifier: 'WEIGHT' }),
  );
  return xmlDocument(
    tag(
      'assessmentTest',
      { xmlns: NS, identifier, title },
      outcome('SCORE', { masteryValue: passMark }),
      timeLimitMinutes === null ? '' : tag('timeLimits', { maxTime: timeLimitMinutes * 60 }),
      tag(
        'testPart',
        { identifier: 'part', navigationMode: 'nonlinear', submissionMode: 'simultaneous' },
        attempts === null
          ? ''
          : tag('itemSessionControl', { maxAttempts: attempts === 'unlimited' ? 0 : attempts }),
        ...sections,
      ),
      tag('outcomeProcessing', {}, tag('setOutcomeValue', { identifier: 'SCORE' }, sum)),
    ),
  );
}

/** Fixed items and a draw stand in sections of their own. @param whole instructions of the whole quiz, in its first section */
function sectionXml(
  { title, instructions, shuffle, items: placed, draw }: HeldSection,
  identifier: string,
  whole: string | null,
  items: ReadonlyMap<string, HeldItem>,
): string {
  const rubrics = [whole, instructions].map(rubric);
  const order = shuffle ? tag('ordering', { shuffle: true }) : '';
  const refs = (list: readonly Placed[]): string[] =>
    list.map((p) => reference(items.get(p.item)!, p.weight));
  const section = (id: string, ...inside: readonly string[]): string =>
    tag('assessmentSection', { identifier: id, title, visible: true }, ...inside);
  const fixed = draw && placed.length === 0 ? '' : section(identifier, ...rubrics, order, ...refs(placed));
  if (!draw) return fixed;
  const drawn = draw.pool.map((item) => {
    const { points } = items.get(item)!;
    return { item, weight: points > 0 ? draw.pointsEach / points : 1 };
  });
  const own = fixed === '' ? rubrics : [];
  const select = tag('selection', { select: draw.pick });
  return fixed + section(`${identifier}d`, ...own, select, order, ...refs(drawn));
}

/** A rubric block holds blocks: text alone becomes a paragraph. */
function rubric(markup: string | null): string {
  if (markup === null) return '';
  const blocks = /^\s*</u.test(markup) ? markup : `<p>${markup}</p>`;
  return tag('rubricBlock', { view: 'candidate' }, files(blocks));
}
