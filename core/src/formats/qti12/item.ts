// <item ident="i1" title="Fix by
// bearings"><itemmetadata/><presentation/><resprocessing/><itemfeedback/></item>
import { tidy } from '../../content/tidy.ts';
import type { ContentNode, Feedback, OpaqueNode } from '../../model/content.ts';
import type { Item, MetaField } from '../../model/holding.ts';
import { cutList, NONE } from '../../model/lists.ts';
import { attrOf } from '../../xml/attrs.ts';
import { child, elements, isElement, mentions, rawXml, textOf, type XmlElement } from '../../xml/tree.ts';
import { originOf, readingOne, report, type DocumentContext, type DraftItem } from '../draft.ts';
import { itemContent } from '../contents.ts';
import { numericResponses, pointedResponses } from './conditionvar.ts';
import { readMaterial, readMaterials, type MaterialContext } from './material.ts';
import { field, readMetadata, statedPoints } from './metadata.ts';
import { readPresentation } from './presentation.ts';
import { FEEDBACK_OUTCOME, readProcessing } from './resprocessing.ts';

/** What an item holds besides what is read here; anything else is reported as kept unread. */
const KNOWN = new Set([
  'itemmetadata',
  'qtimetadata',
  'qticomment',
  'objectives',
  'itemcontrol',
  'presentation',
  'resprocessing',
  'itemfeedback',
  'duration',
  'itemrubric',
  'rubric',
]);

/** The question of an `item` element; none, with a finding, where it cannot be read. */
export function itemAt(element: XmlElement, context: DocumentContext): DraftItem[] {
  const read = readingOne(context, element, () => readItem(element, context));
  return read ? [read] : [];
}

function readItem(element: XmlElement, context: DocumentContext): DraftItem {
  const rawId = attrOf(element, 'ident') || 'item';
  const id = context.claim('item', rawId);
  const gathered = itemContent(context, element, id);
  const { content } = gathered;
  const material: MaterialContext = { content, document: context.document };
  const metadata = [...readMetadata(element), ...attributesAsFields(element)];
  const presentation = child(element, 'presentation');
  const presented = presentation
    ? readPresentation(presentation, {
        ...material,
        essay: isEssay(metadata),
        numeric: numericResponses(element),
        pointed: mentions(context.document, 'varinside') ? pointedResponses(element) : new Set<string>(),
      })
    : { body: [], responses: [], blanks: new Map<string, readonly string[]>() };
  const processing = readProcessing(element, presented.responses, presented.blanks);
  for (const what of new Set(processing.program.untranslated)) {
    report(context, element, 'scoring-untranslated', 'warning', { what }, id);
  }
  const kept = elements(element)
    .filter((e) => !KNOWN.has(e.name))
    .map((other): OpaqueNode => {
      report(context, other, 'opaque-content', 'warning', { what: `<${other.name}>` }, id);
      return { kind: 'opaque', standard: 'qti1.2', name: other.name, xml: rawXml(context.document, other) };
    });
  const rubrics = [...elements(element, 'itemrubric'), ...elements(element, 'rubric')];
  const item: Item = {
    id,
    title: attrOf(element, 'title'),
    standard: 'qti1.2',
    body:
      rubrics.length === 0
        ? presented.body
        : [...rubrics.flatMap((r) => rubricBlock(r, material)), ...presented.body],
    responses: presented.responses,
    outcomes: processing.outcomes,
    scoreOutcome: processing.scoreOutcome,
    scoring: processing.program,
    pointsSources: cutList(statedPoints(metadata)),
    feedback: cutList(elements(element, 'itemfeedback').flatMap((f) => readFeedback(f, material))),
    category: field(metadata, 'cc_question_category', 'qmd_topic') || null,
    metadata,
    language: attrOf(element, 'xml:lang') || null,
    files: cutList(gathered.files),
    origin: originOf(context, element),
    points: 0,
    pointsExact: true,
    scale: 1,
    adaptive: false,
    templates: NONE,
    templateRules: NONE,
    stimuli: NONE,
    kept: cutList(kept),
  };
  return { item, path: context.path, rawId };
}

/** What an item says of itself outside its metadata. */
function attributesAsFields(element: XmlElement): MetaField[] {
  const duration = child(element, 'duration');
  return [
    ...['label', 'maxattempts'].flatMap((label) =>
      attrOf(element, label) ? [{ label, value: attrOf(element, label) }] : [],
    ),
    ...(duration ? [{ label: 'duration', value: textOf(duration).trim() }] : []),
  ];
}

const isEssay = (metadata: Item['metadata']): boolean =>
  field(metadata, 'cc_profile')?.toLowerCase().startsWith('cc.essay') === true ||
  field(metadata, 'qmd_computerscored')?.toLowerCase() === 'no';

function rubricBlock(element: XmlElement, material: MaterialContext): ContentNode[] {
  const children = tidy(readMaterials(element, material));
  const view = attrOf(element, 'view').toLowerCase();
  return children.length > 0
    ? [{ kind: 'rubricBlock', view: view === '' || view === 'all' ? 'candidate' : view, children }]
    : [];
}

/** An itemfeedback can hold material, solutions and hints side by side; each becomes one feedback. */
function readFeedback(element: XmlElement, material: MaterialContext): Feedback[] {
  const base = {
    id: attrOf(element, 'ident'),
    title: attrOf(element, 'title'),
    outcome: FEEDBACK_OUTCOME,
    show: true,
  };
  const general: ContentNode[] = [];
  const found: Feedback[] = [];
  for (const part of element.children.filter(isElement)) {
    if (part.name === 'solution' || part.name === 'hint') {
      found.push({ ...base, kind: part.name, content: tidy(readMaterials(part, material)) });
    } else general.push(...readMaterial(part, material));
  }
  if (general.length > 0 || found.length === 0)
    found.unshift({ ...base, kind: 'general', content: tidy(general) });
  return found;
}
