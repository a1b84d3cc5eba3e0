// <assessment ident="a1" title="Tides"><qtimetadata/><section ident="s1"><item/><selection_ordering/></section></assessment>
import { plain } from '../../model/visit.ts';
import { NO_SETTINGS } from '../../model/make.ts';
import type { QuizSettings } from '../../model/holding.ts';
import { attrOf, parseNumber } from '../../xml/attrs.ts';
import { child, elements, isElement, textOf, type XmlElement } from '../../xml/tree.ts';
import {
  originOf,
  report,
  type Draft,
  type DocumentContext,
  type DraftDraw,
  type DraftRef,
  type DraftSection,
} from '../draft.ts';
import { itemContent } from '../contents.ts';
import { readItem } from './item.ts';
import { readMaterials } from './material.ts';
import { field, readMetadata } from './metadata.ts';
import { fileStem } from '../../intake/paths.ts';

export function readAssessment(element: XmlElement, context: DocumentContext, draft: Draft): void {
  const id = context.claim('quiz', attrOf(element, 'ident') || 'assessment');
  const metadata = readMetadata(element);
  const sections: DraftSection[] = [];
  // Items and references directly in the assessment form an untitled section of their own.
  const loose = readRefs(element, context, draft);
  if (loose.length > 0) {
    sections.push({
      id: `${id}-items`,
      title: '',
      shuffle: isRandom(element),
      instructions: null,
      refs: loose,
      draw: readDraw(element),
      line: 0,
    });
  }
  for (const section of elements(element, 'section'))
    sections.push(...readSection(section, context, draft, ''));
  draft.quizzes.push({
    id,
    title: attrOf(element, 'title') || context.resourceTitle,
    settings: readSettings(element, metadata, context, id),
    sections,
    test: null,
    metadata,
    origin: originOf(context, element),
    path: context.path,
  });
}

/** A section and the sections nested in it, flattened in document order and titled "Outer / Inner". */
export function readSection(
  element: XmlElement,
  context: DocumentContext,
  draft: Draft,
  outer: string,
): DraftSection[] {
  const own = attrOf(element, 'title');
  const title = [outer, own].filter((t) => t !== '').join(' / ');
  const refs = readRefs(element, context, draft);
  const draw = readDraw(element);
  const nested = elements(element, 'section');
  const section: DraftSection = {
    id: context.claim('section', attrOf(element, 'ident') || 'section'),
    title,
    shuffle: isRandom(element),
    instructions: instructionsOf(element, context, null),
    refs,
    draw,
    line: context.place(element.start).line,
  };
  const inner = nested.flatMap((n) => readSection(n, context, draft, title));
  for (const ref of elements(element, 'sectionref')) {
    report(context, ref, 'opaque-content', 'warning', { what: `<sectionref> ${attrOf(ref, 'linkrefid')}` });
  }
  return refs.length > 0 || draw || nested.length === 0 ? [section, ...inner] : inner;
}

export function readBank(element: XmlElement, context: DocumentContext, draft: Draft): void {
  const rawId = attrOf(element, 'ident') || 'bank';
  const id = context.claim('bank', rawId);
  const metadata = readMetadata(element);
  const collect = (parent: XmlElement): DraftRef[] => [
    ...readRefs(parent, context, draft),
    ...elements(parent, 'section').flatMap(collect),
  ];
  const refs = collect(element);
  let title =
    attrOf(element, 'title') || field(metadata, 'bank_title', 'qmd_title', 'title') || context.resourceTitle;
  if (title === '') {
    title = fileStem(context.path);
    report(context, element, 'title-missing', 'note', { used: title }, id);
  }
  draft.banks.push({
    id,
    rawId,
    title,
    refs,
    sections: [],
    metadata,
    origin: originOf(context, element),
    path: context.path,
  });
}

function readRefs(parent: XmlElement, context: DocumentContext, draft: Draft): DraftRef[] {
  const refs: DraftRef[] = [];
  for (const element of parent.children.filter(isElement)) {
    if (element.name === 'item') {
      const read = readItem(element, context);
      draft.items.push(read);
      refs.push({ by: 'id', item: read.item.id, weight: 1 });
    } else if (element.name === 'itemref') {
      refs.push({
        by: 'ident',
        ident: attrOf(element, 'linkrefid'),
        weight: 1,
        line: context.place(element.start).line,
      });
    }
  }
  return refs;
}

const isRandom = (element: XmlElement): boolean => {
  const holder = child(element, 'selection_ordering');
  const order = holder ? child(holder, 'order') : null;
  return order !== null && attrOf(order, 'order_type').toLowerCase() === 'random';
};

/** selection_number says how many; sourcebank_ref, from where. Points for each stand in extensions of any name. */
function readDraw(element: XmlElement): DraftDraw | null {
  const holder = child(element, 'selection_ordering');
  const selection = holder ? child(holder, 'selection') : null;
  if (!selection) return null;
  const numberElement = child(selection, 'selection_number');
  const bankElement = child(selection, 'sourcebank_ref');
  const pick = parseNumber(numberElement ? textOf(numberElement) : null);
  if (pick === null) return null;
  let pointsEach: number | null = null;
  for (const extension of elements(selection, 'selection_extension')) {
    for (const hint of elements(extension)) {
      if (/point|score|weight/iu.test(hint.name)) pointsEach ??= parseNumber(textOf(hint));
    }
  }
  const bank = bankElement ? textOf(bankElement).trim() : '';
  return { pick, bank: bank || null, pointsEach, withReplacement: false };
}

function instructionsOf(element: XmlElement, context: DocumentContext, node: string | null): string | null {
  const texts: string[] = [];
  const { content } = itemContent(context, element, node ?? '');
  for (const holder of [...elements(element, 'rubric'), ...elements(element, 'presentation_material')]) {
    const view = attrOf(holder, 'view').toLowerCase();
    if (view !== '' && view !== 'all' && view !== 'candidate') continue;
    const found = plain(readMaterials(holder, { content, document: context.document }));
    if (found) texts.push(found);
  }
  return texts.length > 0 ? texts.join('\n') : null;
}

function readSettings(
  element: XmlElement,
  metadata: ReturnType<typeof readMetadata>,
  context: DocumentContext,
  id: string,
): QuizSettings {
  const attempts = field(metadata, 'cc_maxattempts');
  const duration = child(element, 'duration');
  return {
    ...NO_SETTINGS,
    attempts:
      attempts === null ? null : attempts.toLowerCase() === 'unlimited' ? 'unlimited' : parseNumber(attempts),
    timeLimitMinutes:
      parseNumber(field(metadata, 'qmd_timelimit')) ?? (duration ? isoMinutes(textOf(duration)) : null),
    passMark: passMark(element),
    instructions: instructionsOf(element, context, id),
  };
}

function passMark(element: XmlElement): number | null {
  for (const processing of elements(element, 'outcomes_processing')) {
    const outcomes = child(processing, 'outcomes');
    for (const decvar of outcomes ? elements(outcomes, 'decvar') : []) {
      const cut = parseNumber(decvar.attrs['cutvalue']);
      if (cut !== null) return cut;
    }
  }
  return null;
}

/** Minutes of an ISO 8601 duration without years and months, or null. */
export function isoMinutes(text: string): number | null {
  const match =
    /^P(?:(\d+(?:\.\d+)?)D)?(?:T(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)S)?)?$/u.exec(
      text.trim(),
    );
  if (!match || text.trim() === 'P') return null;
  const [d, h, m, s] = match.slice(1).map((part) => Number(part ?? 0));
  return d! * 1440 + h! * 60 + m! + s! / 60;
}
