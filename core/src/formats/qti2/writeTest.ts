import type { Bank, ItemRef, Quiz, Section } from '../../model/holding.ts';
import { outcome } from '../../model/make.ts';
import type { Expr } from '../../model/scoring.ts';
import {
  WHOLE_TEST_USE,
  type SessionControl,
  type TestItemRef,
  type TestPart,
  type TestSection,
  type TestStructure,
  type TimeLimits,
} from '../../model/testStructure.ts';
import { encodePath, relativePath } from '../../intake/paths.ts';
import { tag as html, escapeText, xmlDocument } from '../../xml/write.ts';
import type { Markup } from './markup.ts';
import { asBlocks, writeContent, type ContentWriter } from './writeContent.ts';
import { writeExpr, writeRules } from './writeExpression.ts';
import { rootAttributes, writeOutcome } from './writeItem.ts';

/** Where an item's file stands. */
type ItemPath = (id: string) => string | null;

/** One assessmentTest document: the structure it was read with, else one made from the quiz's sections. */
export function writeTest(quiz: Quiz, writer: ContentWriter, itemPath: ItemPath): string {
  const { markup } = writer;
  const body = quiz.test
    ? structureOf(quiz.test, writer, itemPath)
    : sectionsOf(quiz, markup, writer.path, itemPath);
  return xmlDocument(
    markup.block('assessmentTest', rootAttributes(markup, { identifier: quiz.id, title: quiz.title }), body),
  );
}

/** A bank as an assessmentSection document of its own. */
export function writeBank(bank: Bank, markup: Markup, path: string, itemPath: ItemPath): string {
  const refs = bank.items.map((item) => ({ item, weight: 1 }));
  return xmlDocument(
    markup.block(
      'assessmentSection',
      rootAttributes(markup, { identifier: bank.id, title: bank.title, visible: true }),
      writeRefs(refs, markup, path, itemPath),
    ),
  );
}

function structureOf(test: TestStructure, writer: ContentWriter, itemPath: ItemPath): string[] {
  const { markup } = writer;
  const { block, tag } = markup;
  const controls = (node: TestPart | TestSection | TestItemRef): { before: string[]; limits: string[] } => ({
    before: [
      ...node.preConditions.map((c) => block('preCondition', {}, [writeExpr(c, markup)])),
      ...node.branchRules.map((r) => block('branchRule', { target: r.target }, [writeExpr(r.when, markup)])),
    ],
    limits: [session(node.session, markup), timeLimits(node.timeLimits, markup)],
  });
  const section = (node: TestSection): string => {
    const { before, limits } = controls(node);
    return block(
      'assessmentSection',
      {
        identifier: node.id,
        title: node.title,
        visible: node.visible,
        required: node.required ? true : null,
        fixed: node.fixed ? true : null,
        keepTogether: node.keepTogether ? null : false,
      },
      [
        ...before,
        ...limits,
        node.selection
          ? tag('selection', {
              select: node.selection.select,
              withReplacement: node.selection.withReplacement ? true : null,
            })
          : '',
        node.shuffle ? tag('ordering', { shuffle: true }) : '',
        ...node.rubrics.map((r) =>
          tag('rubricBlock', { view: r.view, use: r.use || null }, wrap(markup, asBlocks(r.content, writer))),
        ),
        ...node.children.map((c) => (c.kind === 'section' ? section(c) : itemRef(c))),
      ],
    );
  };
  const itemRef = (node: TestItemRef): string => {
    const target = node.item === null ? null : itemPath(node.item);
    if (target === null) return '';
    const { before, limits } = controls(node);
    return block(
      'assessmentItemRef',
      {
        identifier: node.id,
        href: encodePath(relativePath(writer.path, target)),
        required: node.required ? true : null,
        fixed: node.fixed ? true : null,
        category: node.categories.join(' ') || null,
      },
      [
        ...before,
        ...limits,
        ...node.variableMappings.map((m) =>
          tag('variableMapping', { sourceIdentifier: m.from, targetIdentifier: m.to }),
        ),
        ...node.weights.map((w) => tag('weight', { identifier: w.id, value: w.value })),
        ...node.templateDefaults.map((d) =>
          block('templateDefault', { templateIdentifier: d.id }, [writeExpr(d.value, markup)]),
        ),
      ],
    );
  };
  const part = (node: TestPart): string => {
    const { before, limits } = controls(node);
    return block(
      'testPart',
      { identifier: node.id, navigationMode: node.navigationMode, submissionMode: node.submissionMode },
      [...before, ...limits, ...node.sections.map(section)],
    );
  };
  return [
    ...test.outcomes.map((o) => writeOutcome(o, markup)),
    timeLimits(test.timeLimits, markup),
    ...test.parts.map(part),
    test.outcomeRules.length > 0
      ? block('outcomeProcessing', {}, writeRules(test.outcomeRules, 'outcome', markup))
      : '',
    ...test.feedback.map((f) =>
      tag(
        'testFeedback',
        {
          access: f.access,
          outcomeIdentifier: f.outcome,
          showHide: f.show ? 'show' : 'hide',
          identifier: f.id,
          title: f.title || null,
        },
        wrap(markup, writeContent(f.content, writer)),
      ),
    ),
  ];
}

const wrap = ({ dialect, tag }: Markup, content: string): string =>
  dialect.hyphenated && content ? tag('contentBody', {}, content) : content;

const session = (control: SessionControl | null, { tag }: Markup): string =>
  control ? tag('itemSessionControl', { maxAttempts: control.maxAttempts, ...control.flags }) : '';

const timeLimits = (limits: TimeLimits | null, { tag }: Markup): string =>
  limits
    ? tag('timeLimits', {
        minTime: limits.minTime,
        maxTime: limits.maxTime,
        allowLateSubmission: limits.allowLateSubmission ? true : null,
      })
    : '';

const total: Expr = {
  op: 'call',
  name: 'sum',
  args: [
    {
      op: 'call',
      name: 'testVariables',
      args: [],
      attrs: { variableIdentifier: 'SCORE', weightIdentifier: 'WEIGHT' },
    },
  ],
};

function sectionsOf(quiz: Quiz, markup: Markup, path: string, itemPath: ItemPath): string[] {
  const { tag, block } = markup;
  const { attempts, timeLimitMinutes, passMark, instructions } = quiz.settings;
  const maxAttempts = attempts === 'unlimited' ? 0 : attempts;
  const sections = quiz.sections.flatMap((section) => splitSection(section));
  const used =
    sections.length > 0
      ? sections
      : [
          {
            id: `${quiz.id}_section`,
            title: '',
            shuffle: false,
            items: [],
            draw: null,
            instructions: null,
          },
        ];
  return [
    writeOutcome(outcome('SCORE', passMark === null ? {} : { masteryValue: passMark }), markup),
    timeLimitMinutes === null ? '' : tag('timeLimits', { maxTime: timeLimitMinutes * 60 }),
    block('testPart', { identifier: 'part', navigationMode: 'nonlinear', submissionMode: 'simultaneous' }, [
      maxAttempts === null ? '' : tag('itemSessionControl', { maxAttempts }),
      ...used.map((section, at) =>
        writeSection(section, markup, path, itemPath, at === 0 ? instructions : null),
      ),
    ]),
    block('outcomeProcessing', {}, writeRules([{ do: 'set', id: 'SCORE', value: total }], 'outcome', markup)),
  ];
}

/** selection applies to everything in a section, so fixed items beside a draw get a section of their own. */
function splitSection(section: Section): Section[] {
  const { draw } = section;
  if (!draw) return [section];
  const fixed = section.items.filter((r) => !draw.pool.includes(r.item));
  const drawn = { ...section, items: [] };
  return fixed.length > 0
    ? [
        { ...section, items: fixed, draw: null },
        { ...drawn, id: `${section.id}_draw`, instructions: null },
      ]
    : [drawn];
}

function writeSection(
  section: Section,
  markup: Markup,
  path: string,
  itemPath: ItemPath,
  wholeTest: string | null,
): string {
  const { draw } = section;
  const refs: ItemRef[] = draw
    ? draw.pool.map((item, at) => ({ item, weight: draw.weights?.[at] ?? 1 }))
    : [...section.items];
  return markup.block('assessmentSection', { identifier: section.id, title: section.title, visible: true }, [
    draw
      ? markup.tag('selection', {
          select: draw.pick,
          withReplacement: draw.withReplacement ? true : null,
        })
      : '',
    section.shuffle ? markup.tag('ordering', { shuffle: true }) : '',
    rubric(wholeTest, WHOLE_TEST_USE, markup),
    rubric(section.instructions, null, markup),
    ...writeRefs(refs, markup, path, itemPath),
  ]);
}

function rubric(text: string | null, use: string | null, markup: Markup): string {
  if (text === null) return '';
  const lines = text.split('\n').map((line) => html('p', {}, escapeText(line)));
  return markup.block(
    'rubricBlock',
    { view: 'candidate', use },
    markup.dialect.hyphenated ? [markup.block('contentBody', {}, lines)] : lines,
  );
}

function writeRefs(refs: readonly ItemRef[], markup: Markup, path: string, itemPath: ItemPath): string[] {
  return refs.map(({ item, weight }) => {
    const target = itemPath(item);
    if (target === null) return '';
    const attrs = { identifier: item, href: encodePath(relativePath(path, target)) };
    return weight === 1
      ? markup.tag('assessmentItemRef', attrs)
      : markup.block('assessmentItemRef', attrs, [
          markup.tag('weight', { identifier: 'WEIGHT', value: weight }),
        ]);
  });
}
