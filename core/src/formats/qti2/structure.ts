// <testPart identifier="p" navigationMode="linear" submissionMode="individual"><assessmentSection
// …><assessmentItemRef …/></assessmentSection></testPart>
import { buildContent } from '../../content/build.ts';
import { tidy } from '../../content/tidy.ts';
import { cleanAddress, resolvePath } from '../../intake/paths.ts';
import type { ContentNode, Standard } from '../../model/content.ts';
import type { Expr } from '../../model/scoring.ts';
import type {
  SessionControl,
  TestFeedback,
  TestItemRef,
  TestPart,
  TestSection,
  TestStructure,
  TimeLimits,
} from '../../model/testStructure.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, elements, type XmlElement } from '../../xml/tree.ts';
import { itemContent } from '../contents.ts';
import type { DocumentContext } from '../draft.ts';
import { bodySpecial } from './body.ts';
import { readOutcomeDeclaration } from './declarations.ts';
import { normaliseNames } from './normalise.ts';
import { readExpression, readRules } from './processing.ts';
import { put } from '../../model/own.ts';

interface Reading {
  readonly context: DocumentContext;
  readonly standard: Standard;
  readonly untranslated: string[];
  /** Section files inlined so far, so that one that refers to itself ends. */
  readonly inside: readonly string[];
}

/** The whole structure of a test. Item references keep the package path they lead to in `href`. */
export function readStructure(root: XmlElement, context: DocumentContext, standard: Standard): TestStructure {
  const reading: Reading = { context, standard, untranslated: [], inside: [context.path] };
  const processing = child(root, 'outcomeProcessing');
  return {
    outcomes: elements(root, 'outcomeDeclaration').map(readOutcomeDeclaration),
    timeLimits: readTimeLimits(root),
    parts: elements(root, 'testPart').map((part) => readPart(part, reading)),
    outcomeRules: processing ? readRules(processing, reading.untranslated) : [],
    feedback: [root, ...elements(root, 'testPart')].flatMap((holder) =>
      elements(holder, 'testFeedback').map((f) => readTestFeedback(f, reading)),
    ),
    untranslated: reading.untranslated,
  };
}

function controlled(element: XmlElement, reading: Reading) {
  const expression = (holder: XmlElement): Expr => {
    const [first] = elements(holder);
    return first ? readExpression(first, reading.untranslated) : { op: 'null' };
  };
  return {
    id: attrOf(element, 'identifier'),
    preConditions: elements(element, 'preCondition').map(expression),
    branchRules: elements(element, 'branchRule').map((rule) => ({
      target: attrOf(rule, 'target'),
      when: expression(rule),
    })),
    session: readSession(element),
    timeLimits: readTimeLimits(element),
  };
}

function readSession(element: XmlElement): SessionControl | null {
  const control = child(element, 'itemSessionControl');
  if (!control) return null;
  const flags: Record<string, boolean> = {};
  for (const [key, value] of Object.entries(control.attrs))
    if (value === 'true' || value === 'false') put(flags, key, value === 'true');
  return { maxAttempts: numberAttr(control, 'maxAttempts'), flags };
}

function readTimeLimits(element: XmlElement): TimeLimits | null {
  const limits = child(element, 'timeLimits');
  return (
    limits && {
      minTime: numberAttr(limits, 'minTime'),
      maxTime: numberAttr(limits, 'maxTime'),
      allowLateSubmission: booleanAttr(limits, 'allowLateSubmission', false),
    }
  );
}

const readPart = (element: XmlElement, reading: Reading): TestPart => ({
  ...controlled(element, reading),
  navigationMode: attrOf(element, 'navigationMode') === 'linear' ? 'linear' : 'nonlinear',
  submissionMode: attrOf(element, 'submissionMode') === 'individual' ? 'individual' : 'simultaneous',
  sections: childrenOf(element, reading).filter((c): c is TestSection => c.kind === 'section'),
});

function childrenOf(parent: XmlElement, reading: Reading): (TestSection | TestItemRef)[] {
  return elements(parent).flatMap((element): (TestSection | TestItemRef)[] => {
    switch (element.name) {
      case 'assessmentSection':
        return [readSection(element, reading)];
      case 'assessmentSectionRef': {
        const path = resolvePath(reading.context.path, cleanAddress(attrOf(element, 'href')));
        const document =
          path === null || reading.inside.includes(path) ? null : reading.context.sibling(path);
        if (!document || path === null) return [];
        normaliseNames(document.root);
        const context = { ...reading.context, path, document, file: reading.context.fileFrom(path) };
        return [readSection(document.root, { ...reading, context, inside: [...reading.inside, path] })];
      }
      case 'assessmentItemRef':
        return [readItemRef(element, reading)];
      default:
        return [];
    }
  });
}

function readSection(element: XmlElement, reading: Reading): TestSection {
  const selection = child(element, 'selection');
  const select = selection ? numberAttr(selection, 'select') : null;
  const ordering = child(element, 'ordering');
  return {
    kind: 'section',
    ...controlled(element, reading),
    title: attrOf(element, 'title'),
    visible: booleanAttr(element, 'visible', true),
    required: booleanAttr(element, 'required', false),
    fixed: booleanAttr(element, 'fixed', false),
    keepTogether: booleanAttr(element, 'keepTogether', true),
    selection:
      select === null ? null : { select, withReplacement: booleanAttr(selection!, 'withReplacement', false) },
    shuffle: ordering ? booleanAttr(ordering, 'shuffle', false) : false,
    rubrics: elements(element, 'rubricBlock').map((block) => ({
      view: attrOf(block, 'view') || 'candidate',
      use: attrOf(block, 'use'),
      content: contentOf(block, reading),
    })),
    children: childrenOf(element, reading),
  };
}

const readItemRef = (element: XmlElement, reading: Reading): TestItemRef => ({
  kind: 'item',
  ...controlled(element, reading),
  item: null,
  href: resolvePath(reading.context.path, cleanAddress(attrOf(element, 'href'))) ?? attrOf(element, 'href'),
  required: booleanAttr(element, 'required', false),
  fixed: booleanAttr(element, 'fixed', false),
  categories: attrOf(element, 'category')
    .split(/\s+/u)
    .filter((c) => c !== ''),
  weights: elements(element, 'weight').map((w) => ({
    id: attrOf(w, 'identifier'),
    value: numberAttr(w, 'value') ?? 1,
  })),
  variableMappings: elements(element, 'variableMapping').map((m) => ({
    from: attrOf(m, 'sourceIdentifier'),
    to: attrOf(m, 'targetIdentifier'),
  })),
  templateDefaults: elements(element, 'templateDefault').map((d) => {
    const [first] = elements(d);
    return {
      id: attrOf(d, 'templateIdentifier'),
      value: first ? readExpression(first, reading.untranslated) : ({ op: 'null' } as const),
    };
  }),
});

const readTestFeedback = (element: XmlElement, reading: Reading): TestFeedback => ({
  id: attrOf(element, 'identifier'),
  title: attrOf(element, 'title'),
  access: attrOf(element, 'access') === 'during' ? 'during' : 'atEnd',
  outcome: attrOf(element, 'outcomeIdentifier'),
  show: attrOf(element, 'showHide') !== 'hide',
  content: contentOf(element, reading),
});

function contentOf(element: XmlElement, { context, standard }: Reading): readonly ContentNode[] {
  const { content } = itemContent(context, element, attrOf(element, 'identifier'), (e) => special(e));
  const special = bodySpecial(context.document, standard, () => content);
  return tidy(buildContent(element.children, content));
}
