import { fixedItems, inOwnDraw } from '../../model/quizzes.ts';
import type { Feedback } from '../../model/content.ts';
import type { Bank, Item, MetaField, Quiz, Section } from '../../model/holding.ts';
import { escapeText, keepBreaks, tag, block, xmlDocument } from '../../xml/write.ts';
import type { Condition12, Item12, Test12 } from '../../model/conditions12.ts';
import { areaType, writePresentation, type Writer12 } from './writePresentation.ts';

export const QTI12_NAMESPACE = 'http://www.imsglobal.org/xsd/ims_qtiasiv1p2';

export interface Target12 extends Writer12 {
  readonly cartridge: boolean;
  readonly itemOf: (id: string) => Item12 | null;
  readonly namespace: string;
}

/** A document with one assessment. */
export const writeAssessment = (quiz: Quiz, target: Target12): string =>
  questestinterop([assessment(quiz, target)], target);

/** A document with one object bank, or with items alone. */
export function writeObjectBank(bank: Bank, target: Target12): string {
  const fields: MetaField[] = target.cartridge
    ? []
    : [{ label: 'bank_title', value: bank.title }, ...bank.metadata.filter((f) => f.label !== 'bank_title')];
  return questestinterop(
    [
      block('objectbank', { ident: bank.id }, [
        metadata(fields, 'qtimetadata'),
        ...itemsOf(bank.items, target),
      ]),
    ],
    target,
  );
}

export const writeLooseItems = (ids: readonly string[], target: Target12): string =>
  questestinterop(itemsOf(ids, target), target);

const questestinterop = (children: readonly string[], target: Target12): string =>
  xmlDocument(block('questestinterop', { xmlns: target.namespace }, children));

const itemsOf = (ids: readonly string[], target: Target12): string[] =>
  ids.flatMap((id) => {
    const said = target.itemOf(id);
    return said ? [writeItem(said, target)] : [];
  });

function metadata(fields: readonly MetaField[], name: string): string {
  if (fields.length === 0) return '';
  return block(
    name,
    {},
    fields.map((f) =>
      tag('qtimetadatafield', {}, [
        tag('fieldlabel', {}, escapeText(f.label)),
        tag('fieldentry', {}, escapeText(f.value)),
      ]),
    ),
  );
}

const SETTINGS =
  /^(?:cc_maxattempts|qmd_timelimit|cc_profile|qmd_assessmenttype|qmd_scoretype|assessmentcontrol\..*|outcomes_processing)$/iu;

function assessment(quiz: Quiz, target: Target12): string {
  const { attempts, timeLimitMinutes, passMark, instructions } = quiz.settings;
  const fields: MetaField[] = [
    ...(target.cartridge
      ? [
          { label: 'cc_profile', value: 'cc.exam.v0p1' },
          { label: 'qmd_assessmenttype', value: 'Examination' },
          { label: 'qmd_scoretype', value: 'Percentage' },
        ]
      : []),
    ...(attempts === null ? [] : [{ label: 'cc_maxattempts', value: String(attempts) }]),
    ...(timeLimitMinutes === null ? [] : [{ label: 'qmd_timelimit', value: String(timeLimitMinutes) }]),
    ...quiz.metadata.filter((f) => !SETTINGS.test(f.label)),
  ];
  const inner = quiz.sections.map((s) => s.instructions).filter((t) => t !== null);
  const said = target.cartridge
    ? [instructions, ...inner].filter((t) => t !== null)
    : instructions === null
      ? []
      : [instructions];
  const sections = target.cartridge
    ? [rootSection(quiz, target)]
    : quiz.sections.map((s) => section(s, target));
  return block('assessment', { ident: quiz.id, title: quiz.title }, [
    metadata(fields, 'qtimetadata'),
    ...said.map(rubric),
    passMark === null || target.cartridge
      ? ''
      : block('outcomes_processing', { scoremodel: 'SumOfScores' }, [
          block('outcomes', {}, [
            tag('decvar', { varname: 'SCORE', vartype: 'Decimal', cutvalue: passMark }),
          ]),
        ]),
    ...sections,
  ]);
}

const rubric = (text: string): string =>
  block('rubric', { view: 'All' }, [
    tag('material', {}, tag('mattext', { texttype: 'text/plain' }, escapeText(text))),
  ]);

/** The profile's one section holds everything. */
const rootSection = (quiz: Quiz, target: Target12): string =>
  block('section', { ident: 'root_section' }, itemsOf(fixedItems(quiz), target));

function section(given: Section, target: Target12): string {
  const { draw } = given;
  const fixed = given.items.filter((r) => !inOwnDraw(given, r.item)).map((r) => r.item);
  const order = given.shuffle ? tag('order', { order_type: 'Random' }) : '';
  const own = draw && draw.bank === null ? draw.pool : [];
  // A selection takes from all items of its section, so fixed ones beside it get a section of their own.
  const beside = draw && fixed.length > 0;
  const selection = draw
    ? block('selection', {}, [
        draw.bank === null ? '' : tag('sourcebank_ref', {}, escapeText(draw.bank)),
        tag('selection_number', {}, String(draw.pick)),
        block('selection_extension', {}, [tag('points_each', {}, String(draw.pointsEach))]),
      ])
    : '';
  const made = (id: string, ids: readonly string[], select: string, instructions: string | null): string =>
    block('section', { ident: id, title: given.title }, [
      instructions === null ? '' : rubric(instructions),
      select || order ? block('selection_ordering', {}, [select, order]) : '',
      ...itemsOf(ids, target),
    ]);
  if (!draw) return made(given.id, fixed, '', given.instructions);
  return beside
    ? [made(given.id, fixed, '', given.instructions), made(`${given.id}_draw`, own, selection, null)].join(
        '\n',
      )
    : made(given.id, own, selection, given.instructions);
}

const PROFILES: Readonly<Record<string, string>> = {
  choice: 'multiple_choice',
  choices: 'multiple_response',
  yesno: 'true_false',
  textEntry: 'fib',
  pattern: 'pattern_match',
  extendedText: 'essay',
};
const POINTS =
  /^(?:cc_weighting|qmd_maximumscore|qmd_weighting|cc_profile|cc_question_category|qmd_computerscored|label|maxattempts|duration)$/iu;

export function writeItem(said: Item12, target: Target12): string {
  const { item } = said;
  const manual = said.conditions.every((c) => c.score === null);
  const category =
    item.category === null
      ? []
      : [{ label: target.cartridge ? 'cc_question_category' : 'qmd_topic', value: item.category }];
  const fields: MetaField[] = [
    ...(target.cartridge
      ? [
          { label: 'cc_profile', value: `cc.${profileOf(said)}.v0p1` },
          { label: 'cc_weighting', value: String(item.points) },
        ]
      : [{ label: 'qmd_maximumscore', value: String(item.points) }]),
    ...(manual && item.responses.length > 0 ? [{ label: 'qmd_computerscored', value: 'No' }] : []),
    ...category,
    ...item.metadata.filter(
      (f) => !POINTS.test(f.label) && !(f.label.toLowerCase() === 'qmd_topic' && !target.cartridge),
    ),
  ];
  const attribute = (label: string): string | null =>
    item.metadata.find((f) => f.label === label)?.value ?? null;
  const duration = attribute('duration');
  return block(
    'item',
    {
      ident: item.id,
      title: item.title || null,
      label: attribute('label'),
      maxattempts: attribute('maxattempts'),
      'xml:lang': item.language,
    },
    [
      duration ? tag('duration', {}, escapeText(duration)) : '',
      block('itemmetadata', {}, [metadata(fields, 'qtimetadata')]),
      ...item.kept.filter((k) => k.standard === 'qti1.2' && !target.cartridge).map((k) => keepBreaks(k.xml)),
      writePresentation(item, target),
      block('resprocessing', {}, [
        block('outcomes', {}, [
          tag('decvar', {
            varname: 'SCORE',
            vartype: 'Decimal',
            defaultval: 0,
            minvalue: said.minimum ?? (target.cartridge ? 0 : null),
            maxvalue: said.maximum,
          }),
        ]),
        ...said.conditions.map(condition),
      ]),
      ...said.feedback.map((f) => feedback(f, target)),
    ],
  );
}

function profileOf({ item, conditions }: Item12): string {
  const [kind, several] = kindOf(item);
  if (kind === 'choice') {
    if (several) return PROFILES['choices']!;
    return item.responses.length === 1 && isYesNo(item) ? PROFILES['yesno']! : PROFILES['choice']!;
  }
  if (kind === 'textEntry')
    return conditions.some((c) => c.when.test === 'substring')
      ? PROFILES['pattern']!
      : PROFILES['textEntry']!;
  return PROFILES['extendedText']!;
}

function kindOf(item: Item): [string, boolean] {
  const find = (nodes: Item['body']): string | null => {
    for (const n of nodes) {
      if (n.kind === 'choice' || n.kind === 'textEntry' || n.kind === 'extendedText') return n.kind;
      if (n.kind === 'element') {
        const inside = find(n.children);
        if (inside) return inside;
      }
    }
    return null;
  };
  return [find(item.body) ?? 'extendedText', item.responses.some((r) => r.cardinality === 'multiple')];
}

const isYesNo = (item: Item): boolean => {
  const choice = item.body.find((n) => n.kind === 'choice');
  const said =
    choice?.kind === 'choice'
      ? choice.choices.map((c) => (c.content[0]?.kind === 'text' ? c.content[0].text.toLowerCase() : ''))
      : [];
  return said.length === 2 && said.includes('true') && said.includes('false');
};

function condition(c: Condition12): string {
  return block('respcondition', { continue: c.goesOn ? 'Yes' : 'No' }, [
    tag('conditionvar', {}, test(c.when)),
    c.score === null ? '' : tag('setvar', { varname: 'SCORE', action: c.action }, String(c.score)),
    ...c.feedback.map((id) => tag('displayfeedback', { feedbacktype: 'Response', linkrefid: id })),
  ]);
}

function test(t: Test12): string {
  switch (t.test) {
    case 'other':
      return tag('other');
    case 'unanswered':
      return tag('unanswered', { respident: t.response });
    case 'and':
    case 'or':
      return tag(t.test, {}, t.parts.map(test));
    case 'not':
      return tag('not', {}, test(t.part));
    case 'equal':
      return tag(
        'varequal',
        {
          respident: t.response,
          index: t.index ?? null,
          case: t.caseSensitive === undefined ? null : t.caseSensitive ? 'Yes' : 'No',
        },
        escapeText(t.value),
      );
    case 'substring':
      return tag(
        'varsubstring',
        { respident: t.response, case: t.caseSensitive ? 'Yes' : 'No' },
        escapeText(t.value),
      );
    case 'gt':
    case 'gte':
    case 'lt':
    case 'lte':
      return tag(`var${t.test}`, { respident: t.response }, t.value);
    case 'inside': {
      const { type, text } = areaType(t.shape, t.coords);
      return tag('varinside', { respident: t.response, areatype: type }, text);
    }
  }
}

function feedback(f: Feedback, target: Target12): string {
  const material = tag('material', {}, target.html(f.content));
  const inside =
    f.kind === 'general'
      ? tag('flow_mat', {}, material)
      : tag(f.kind, {}, tag(`${f.kind}material`, {}, material));
  return tag('itemfeedback', { ident: f.id, title: f.title || null }, inside);
}
