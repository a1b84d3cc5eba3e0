// <assessmentTest identifier="t1" title="…"><testPart><assessmentSection><assessmentItemRef href="i1.xml"/>…
import { parseNumber } from '../../model/number.ts';
import { buildContent } from '../../content/build.ts';
import { cleanAddress, fileStem, resolvePath } from '../../intake/paths.ts';
import type { Standard } from '../../model/content.ts';
import { NO_SETTINGS } from '../../model/make.ts';
import type { QuizSettings } from '../../model/holding.ts';
import { plain } from '../../model/plainText.ts';
import { WHOLE_TEST_USE } from '../../model/testStructure.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, descendants, elements, isElement, textOf, type XmlElement } from '../../xml/tree.ts';
import { itemContent } from '../contents.ts';
import {
  originOfHolder,
  report,
  type Draft,
  type DocumentContext,
  type DraftRef,
  type DraftSection,
} from '../draft.ts';
import { bodySpecial } from './body.ts';
import { readStructure } from './structure.ts';

export function readTest(context: DocumentContext, standard: Standard, draft: Draft): void {
  const { root } = context.document;
  const id = context.claim('quiz', attrOf(root, 'identifier') || 'test');
  const parts = elements(root, 'testPart');
  const wholeTest: string[] = [];
  const sections = parts.flatMap((part) =>
    readSections(part, { context, standard, speak: (text) => wholeTest.push(text) }, ''),
  );
  const test = readStructure(root, context, standard);
  for (const what of new Set(test.untranslated))
    report(context, root, 'scoring-untranslated', 'warning', { what }, id);
  draft.quizzes.push({
    id,
    title: attrOf(root, 'title') || context.resourceTitle,
    settings: readSettings(root, parts, wholeTest),
    sections,
    test,
    metadata: [],
    origin: originOfHolder(context, root),
    path: context.path,
  });
}

/** A section file on its own: a bank, unless a test refers to it. */
export function readSectionFile(context: DocumentContext, standard: Standard, draft: Draft): void {
  const { root } = context.document;
  const rawId = attrOf(root, 'identifier') || 'section';
  const sections = readSection(root, { context, standard, speak: () => undefined }, '');
  const id = context.claim('bank', rawId);
  let title = attrOf(root, 'title') || context.resourceTitle;
  if (title === '') {
    title = fileStem(context.path);
    report(context, root, 'title-missing', 'note', { used: title }, id);
  }
  draft.banks.push({
    id,
    rawId,
    title,
    refs: sections.flatMap((s) => s.refs),
    sections,
    metadata: [],
    origin: originOfHolder(context, root),
    path: context.path,
  });
}

interface Reading {
  readonly context: DocumentContext;
  readonly standard: Standard;
  /** Told what is said of the whole test. */
  readonly speak: (text: string) => void;
}

function readSections(parent: XmlElement, reading: Reading, outer: string): DraftSection[] {
  const { context } = reading;
  return parent.children.filter(isElement).flatMap((element) => {
    if (element.name === 'assessmentSection') return readSection(element, reading, outer);
    if (element.name !== 'assessmentSectionRef') return [];
    const line = context.place(element.start).line;
    const path = hrefOf(element, context);
    return [
      {
        id: attrOf(element, 'identifier'),
        title: outer,
        shuffle: false,
        instructions: null,
        refs: [{ by: 'section', path, line }],
        draw: null,
        line,
      },
    ];
  });
}

/** A section and those nested in it, flattened and titled "Outer / Inner". */
function readSection(element: XmlElement, reading: Reading, outer: string): DraftSection[] {
  const { context } = reading;
  const title = [outer, attrOf(element, 'title')].filter((t) => t !== '').join(' / ');
  const selection = child(element, 'selection');
  const ordering = child(element, 'ordering');
  const line = context.place(element.start).line;
  const refs: DraftRef[] = elements(element, 'assessmentItemRef').map((ref) => ({
    by: 'path',
    path: hrefOf(ref, context),
    weight: weightOf(ref),
    line: context.place(ref.start).line,
  }));
  const nested = readSections(element, reading, title);
  const pick = selection ? numberAttr(selection, 'select') : null;
  const own: DraftSection = {
    id: context.claim('section', attrOf(element, 'identifier') || 'section'),
    title,
    shuffle: ordering ? booleanAttr(ordering, 'shuffle', false) : false,
    instructions: readInstructions(element, reading),
    refs,
    draw:
      pick === null
        ? null
        : {
            pick,
            bank: null,
            pointsEach: null,
            withReplacement: booleanAttr(selection!, 'withReplacement', false),
          },
    line,
  };
  return refs.length > 0 || nested.length === 0 ? [own, ...nested] : nested;
}

const hrefOf = (element: XmlElement, context: DocumentContext): string =>
  resolvePath(context.path, cleanAddress(attrOf(element, 'href'))) ?? attrOf(element, 'href');

/** The product of the weights given; most files give one. */
function weightOf(ref: XmlElement): number {
  const [first] = elements(ref, 'weight');
  return first ? (numberAttr(first, 'value') ?? 1) : 1;
}

function readInstructions(element: XmlElement, { context, standard, speak }: Reading): string | null {
  const own: string[] = [];
  const { content } = itemContent(context, element, attrOf(element, 'identifier'), (e) => special(e));
  const special = bodySpecial(context.document, standard, () => content);
  for (const block of elements(element, 'rubricBlock')) {
    const view = attrOf(block, 'view');
    if (view !== '' && !view.split(/\s+/u).includes('candidate')) continue;
    const text = plain(buildContent(block.children, content));
    if (text === '') continue;
    if (attrOf(block, 'use') === WHOLE_TEST_USE) speak(text);
    else own.push(text);
  }
  return own.length > 0 ? own.join('\n') : null;
}

function readSettings(
  root: XmlElement,
  parts: readonly XmlElement[],
  wholeTest: readonly string[],
): QuizSettings {
  const attempts = parts.map((part) => {
    const control = child(part, 'itemSessionControl');
    return control ? numberAttr(control, 'maxAttempts') : null;
  });
  const agreed = attempts.length > 0 && attempts.every((a) => a === attempts[0]) ? attempts[0]! : null;
  const limits = child(root, 'timeLimits') ?? (parts.length === 1 ? child(parts[0]!, 'timeLimits') : null);
  const maxTime = limits ? numberAttr(limits, 'maxTime') : null;
  return {
    ...NO_SETTINGS,
    attempts: agreed === null ? null : agreed === 0 ? 'unlimited' : agreed,
    timeLimitMinutes: maxTime === null ? null : maxTime / 60,
    passMark: readPassMark(root),
    instructions: wholeTest.length > 0 ? wholeTest.join('\n') : null,
  };
}

/** masteryValue of the test's SCORE, or the base value that outcome processing compares SCORE with. */
function readPassMark(root: XmlElement): number | null {
  for (const declared of elements(root, 'outcomeDeclaration')) {
    const mastery = numberAttr(declared, 'masteryValue');
    if (mastery !== null) return mastery;
  }
  for (const processing of elements(root, 'outcomeProcessing')) {
    for (const comparison of [...descendants(processing, 'gte'), ...descendants(processing, 'gt')]) {
      const score = child(comparison, 'variable');
      const mark = child(comparison, 'baseValue');
      if (score && mark && attrOf(score, 'identifier') === 'SCORE') return parseNumber(textOf(mark));
    }
  }
  return null;
}
