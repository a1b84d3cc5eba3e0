// <assessment ident="a1" title="Tides"><qtimetadata/><section
// ident="s1"><item/><selection_ordering/></section></assessment>
import { parseNumber } from '../../model/number.ts';
import { plain } from '../../model/plainText.ts';
import { NO_SETTINGS } from '../../model/make.ts';
import type { QuizSettings } from '../../model/holding.ts';
import { attrOf } from '../../xml/attrs.ts';
import { child, descendants, elements, isElement, textOf, type XmlElement } from '../../xml/tree.ts';
import {
  originOfHolder,
  report,
  type Draft,
  type DocumentContext,
  type DraftDraw,
  type DrawFilter,
  type DraftRef,
  type DraftSection,
} from '../draft.ts';
import { itemContent } from '../contents.ts';
import { itemAt } from './item.ts';
import { readMaterials } from './material.ts';
import { field, readMetadata } from './metadata.ts';
import { fileStem } from '../../intake/paths.ts';

export function readAssessment(element: XmlElement, context: DocumentContext, draft: Draft): void {
  const id = context.claim('quiz', attrOf(element, 'ident') || 'assessment');
  const metadata = [...readMetadata(element), ...controlsAsFields(element)];
  const sections: DraftSection[] = [];
  // Items and references directly in the assessment form an untitled section of their own.
  const loose = readRefs(element, context, draft);
  const [looseDraw = null] = readDraws(element);
  if (loose.length > 0 || looseDraw) {
    sections.push({
      id: `${id}-items`,
      title: '',
      shuffle: isRandom(element),
      instructions: null,
      refs: loose,
      draw: looseDraw,
      line: 0,
    });
  }
  for (const section of elements(element, 'section'))
    sections.push(...readSection(section, context, draft, ''));
  sections.push(...readSectionRefs(element, context, ''));
  // A bank inside the assessment is one all the same.
  for (const bank of elements(element, 'objectbank')) readBank(bank, context, draft);
  draft.quizzes.push({
    id,
    title: attrOf(element, 'title') || context.resourceTitle,
    settings: readSettings(element, metadata, context, id),
    sections,
    test: null,
    metadata,
    origin: originOfHolder(context, element),
    path: context.path,
  });
}

/** What an assessment says of its conduct outside its metadata. */
function controlsAsFields(element: XmlElement): ReturnType<typeof readMetadata> {
  const fields = elements(element, 'assessmentcontrol').flatMap((control) =>
    Object.entries(control.attrs).map(([key, value]) => ({ label: `assessmentcontrol.${key}`, value })),
  );
  for (const processing of elements(element, 'outcomes_processing'))
    fields.push({ label: 'outcomes_processing', value: attrOf(processing, 'scoremodel') || 'SumOfScores' });
  return fields;
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
  const draws = readDraws(element);
  const nested = [
    ...elements(element, 'section').flatMap((n) => readSection(n, context, draft, title)),
    ...readSectionRefs(element, context, title),
  ];
  const made = (draw: DraftDraw | null, items: readonly DraftRef[]): DraftSection => ({
    id: context.claim('section', attrOf(element, 'ident') || 'section'),
    title,
    shuffle: isRandom(element),
    instructions: instructionsOf(element, context, null),
    refs: items,
    draw,
    line: context.place(element.start).line,
  });
  // Each selection of a section is a draw of its own.
  const sections =
    draws.length > 0
      ? draws.map((d, at) => made(d, d.bank === null || at === 0 ? refs : []))
      : [made(null, refs)];
  return refs.length > 0 || draws.length > 0 || nested.length === 0 ? [...sections, ...nested] : nested;
}

/**
 * A section that stands elsewhere in the document is taken by the items in it; the items themselves are read
 * there.
 */
function readSectionRefs(element: XmlElement, context: DocumentContext, outer: string): DraftSection[] {
  return elements(element, 'sectionref').flatMap((ref) => {
    const id = attrOf(ref, 'linkrefid');
    const found = descendants(context.document.root, 'section').find((s) => attrOf(s, 'ident') === id);
    const line = context.place(ref.start).line;
    if (!found) {
      report(context, ref, 'item-ref-missing', 'error', { item: id });
      return [];
    }
    return [
      {
        id: context.claim('section', id),
        title: [outer, attrOf(found, 'title')].filter((t) => t !== '').join(' / '),
        shuffle: isRandom(found),
        instructions: null,
        refs: descendants(found, 'item').map((i): DraftRef => ({
          by: 'ident',
          ident: attrOf(i, 'ident'),
          weight: 1,
          line,
        })),
        draw: readDraws(found)[0] ?? null,
        line,
      },
    ];
  });
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
    origin: originOfHolder(context, element),
    path: context.path,
  });
}

function readRefs(parent: XmlElement, context: DocumentContext, draft: Draft): DraftRef[] {
  const refs: DraftRef[] = [];
  for (const element of parent.children.filter(isElement)) {
    if (element.name === 'item') {
      for (const read of itemAt(element, context)) {
        draft.items.push(read);
        refs.push({ by: 'id', item: read.item.id, weight: 1 });
      }
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

/**
 * selection_number says how many; sourcebank_ref, from where; selection_metadata and its and/or/not, which of
 * them. Points for each stand in extensions of any name.
 */
function readDraws(element: XmlElement): DraftDraw[] {
  const holder = child(element, 'selection_ordering');
  return (holder ? elements(holder, 'selection') : []).flatMap((selection): DraftDraw[] => {
    const numberElement = child(selection, 'selection_number');
    const bankElement = child(selection, 'sourcebank_ref');
    const pick = parseNumber(numberElement ? textOf(numberElement) : null);
    const filter = readFilter(selection);
    const bank = (bankElement ? textOf(bankElement).trim() : '') || null;
    // Without a number all that fit are taken.
    if (pick === null && filter === null && bank === null) return [];
    let pointsEach: number | null = null;
    for (const extension of elements(selection, 'selection_extension')) {
      for (const hint of elements(extension)) {
        if (/point|score|weight/iu.test(hint.name)) pointsEach ??= parseNumber(textOf(hint));
      }
    }
    return [
      {
        pick: pick ?? Number.POSITIVE_INFINITY,
        bank,
        pointsEach,
        withReplacement: false,
        ...(filter ? { filter } : {}),
      },
    ];
  });
}

const JOINS: Readonly<Record<string, 'and' | 'or' | 'not'>> = {
  and_selection: 'and',
  or_selection: 'or',
  not_selection: 'not',
};

function readFilter(parent: XmlElement): DrawFilter | null {
  const parts = readFilterParts(parent);
  return parts.length === 0 ? null : parts.length === 1 ? parts[0]! : { by: 'and', parts };
}

const readFilterParts = (element: XmlElement): DrawFilter[] =>
  elements(element).flatMap((e): DrawFilter[] => {
    if (e.name === 'selection_metadata')
      return [{ by: 'field', label: attrOf(e, 'mdname'), value: textOf(e).trim() }];
    const join = Object.hasOwn(JOINS, e.name) ? JOINS[e.name] : undefined;
    return join ? [{ by: join, parts: readFilterParts(e) }] : [];
  });

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
function isoMinutes(text: string): number | null {
  const match =
    /^P(?:(\d+(?:\.\d+)?)D)?(?:T(?:(\d+(?:\.\d+)?)H)?(?:(\d+(?:\.\d+)?)M)?(?:(\d+(?:\.\d+)?)S)?)?$/u.exec(
      text.trim(),
    );
  if (!match || text.trim() === 'P') return null;
  const [d, h, m, s] = match.slice(1).map((part) => Number(part ?? 0));
  return d! * 1440 + h! * 60 + m! + s! / 60;
}
