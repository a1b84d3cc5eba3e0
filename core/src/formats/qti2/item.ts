// <assessmentItem identifier="i1" title="…" adaptive="false" timeDependent="false">…</assessmentItem>
import { buildContent } from '../../content/build.ts';
import { bodyOf, tidy } from '../../content/tidy.ts';
import type { ContentNode, Feedback, OpaqueNode, Standard } from '../../model/content.ts';
import type { Item, MetaField, Stimulus } from '../../model/holding.ts';
import { outcome } from '../../model/make.ts';
import { attrOf, booleanAttr } from '../../xml/attrs.ts';
import { child, elements, rawXml, type XmlElement } from '../../xml/tree.ts';
import { cleanAddress, resolvePath } from '../../intake/paths.ts';
import { itemContent } from '../contents.ts';
import { originOf, report, type DocumentContext, type DraftItem } from '../draft.ts';
import { bodySpecial } from './body.ts';
import { readOutcomeDeclaration, readResponseDeclaration, readTemplateDeclaration } from './declarations.ts';
import { normaliseNames } from './normalise.ts';
import { readResponseProcessing, readRules } from './processing.ts';

const KNOWN = new Set([
  'responseDeclaration',
  'outcomeDeclaration',
  'templateDeclaration',
  'templateProcessing',
  'contextDeclaration',
  'assessmentStimulusRef',
  'stylesheet',
  'itemBody',
  'responseProcessing',
  'modalFeedback',
]);

/** Whole parts of an item that go back unchanged to their own standard. */
const KEPT = new Set([
  'catalogInfo',
  'companionMaterialsInfo',
  'apipAccessibility',
  'contextDeclaration',
  'interactionMarkup',
  'interactionModules',
]);

export function readItem(context: DocumentContext, standard: Standard, category: string | null): DraftItem {
  const element = context.document.root;
  const rawId = attrOf(element, 'identifier') || 'item';
  const id = context.claim('item', rawId);
  const gathered = itemContent(context, element, id, (e) => special(e));
  const { content } = gathered;
  const special = bodySpecial(context.document, standard, () => content);
  const build = (nodes: XmlElement['children']): readonly ContentNode[] => buildContent(nodes, content);
  const responses = elements(element, 'responseDeclaration').map((e) =>
    readResponseDeclaration(e, standard !== 'qti3'),
  );
  const outcomes = elements(element, 'outcomeDeclaration').map(readOutcomeDeclaration);
  const body = child(element, 'itemBody');
  const processing = readResponseProcessing(child(element, 'responseProcessing'), responses, (address) =>
    privateTemplate(context, address),
  );
  const untranslated: string[] = [];
  const templateProcessing = child(element, 'templateProcessing');
  const templateRules = templateProcessing ? readRules(templateProcessing, untranslated) : [];
  if (processing.unknownTemplate !== null)
    report(context, element, 'template-unknown', 'warning', { template: processing.unknownTemplate }, id);
  for (const what of new Set([...processing.program.untranslated, ...untranslated]))
    report(context, element, 'scoring-untranslated', 'warning', { what }, id);
  for (const sheet of elements(element, 'stylesheet'))
    report(context, sheet, 'stylesheet-ignored', 'note', { href: attrOf(sheet, 'href') }, id);
  const scoreOutcome =
    outcomes.find((o) => o.id === 'SCORE')?.id ??
    outcomes.find((o) => o.baseType === 'float' || o.baseType === 'integer')?.id ??
    'SCORE';
  const maximum = outcomes.find((o) => o.id === scoreOutcome)?.normalMaximum ?? maxScore(outcomes);
  const stimuli = elements(element, 'assessmentStimulusRef').flatMap((ref) =>
    readStimulus(ref, context, standard, gathered, id),
  );
  const item: Item = {
    id,
    standard,
    title: attrOf(element, 'title'),
    body: body ? bodyOf(build(body.children)) : [],
    feedback: elements(element, 'modalFeedback').map((f) => readModal(f, build)),
    responses,
    outcomes: outcomes.some((o) => o.id === scoreOutcome) ? outcomes : [...outcomes, outcome(scoreOutcome)],
    scoreOutcome,
    scoring: {
      ...processing.program,
      untranslated: [...processing.program.untranslated, ...untranslated],
    },
    pointsSources: maximum === null ? [] : [{ source: 'declared', value: maximum }],
    pointsExact: true,
    adaptive: booleanAttr(element, 'adaptive', false),
    templates: elements(element, 'templateDeclaration').map(readTemplateDeclaration),
    templateRules,
    stimuli,
    kept: keptParts(element, context, standard, id),
    category,
    metadata: metadataOf(element),
    language: attrOf(element, 'xml:lang') || null,
    files: gathered.files,
    origin: originOf(context, element),
    points: 0,
    scale: 1,
  };
  return { item, path: context.path, rawId };
}

/** Everything of an item that the tree has no place for, kept whole; known parts without a finding. */
function keptParts(
  element: XmlElement,
  context: DocumentContext,
  standard: Standard,
  id: string,
): OpaqueNode[] {
  return elements(element)
    .filter((e) => !KNOWN.has(e.name) || KEPT.has(e.name))
    .map((e) => {
      report(
        context,
        e,
        'opaque-content',
        KEPT.has(e.name) ? 'note' : 'warning',
        { what: `<${e.name}>` },
        id,
      );
      return { kind: 'opaque', standard, name: e.name, xml: rawXml(context.document, e) } as const;
    });
}

function privateTemplate(context: DocumentContext, address: string): XmlElement | null {
  const path = address === '' ? null : resolvePath(context.path, cleanAddress(address));
  const document = path === null ? null : context.sibling(path);
  if (!document) return null;
  normaliseNames(document.root);
  return document.root.name === 'responseProcessing' ? document.root : null;
}

function readStimulus(
  ref: XmlElement,
  context: DocumentContext,
  standard: Standard,
  gathered: ReturnType<typeof itemContent>,
  id: string,
): Stimulus[] {
  const href = attrOf(ref, 'href');
  const path = resolvePath(context.path, cleanAddress(href));
  const document = path === null ? null : context.sibling(path);
  if (!document || path === null) {
    report(context, ref, 'file-missing', 'error', { path: path ?? href }, id);
    return [];
  }
  normaliseNames(document.root);
  const body = child(document.root, 'stimulusBody');
  const inner: DocumentContext = { ...context, path, document, file: context.fileFrom(path) };
  const own = itemContent(inner, document.root, id, (e) => special(e));
  const special = bodySpecial(document, standard, () => own.content);
  const content = body ? bodyOf(buildContent(body.children, own.content)) : [];
  gathered.addFiles(own.files);
  return [
    {
      id: attrOf(ref, 'identifier') || attrOf(document.root, 'identifier'),
      title: attrOf(document.root, 'title') || attrOf(ref, 'title'),
      path,
      content,
    },
  ];
}

const maxScore = (outcomes: Item['outcomes']): number | null => {
  const given = outcomes.find((o) => o.id === 'MAXSCORE')?.defaultValue[0];
  return typeof given === 'number' ? given : null;
};

function metadataOf(element: XmlElement): MetaField[] {
  const fields: MetaField[] = [];
  for (const name of ['label', 'toolName', 'toolVersion', 'timeDependent']) {
    const value = attrOf(element, name);
    if (value && !(name === 'timeDependent' && value === 'false')) fields.push({ label: name, value });
  }
  return fields;
}

function readModal(
  element: XmlElement,
  build: (nodes: XmlElement['children']) => Feedback['content'],
): Feedback {
  return {
    id: attrOf(element, 'identifier'),
    kind: 'general',
    title: attrOf(element, 'title'),
    outcome: attrOf(element, 'outcomeIdentifier'),
    show: attrOf(element, 'showHide') !== 'hide',
    content: tidy(build(element.children)),
  };
}
