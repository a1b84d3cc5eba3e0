// <assessmentItem identifier="i1" title="…" adaptive="false" timeDependent="false">…</assessmentItem>
import { buildContent } from '../../content/build.ts';
import { bodyOf, tidy } from '../../content/tidy.ts';
import type { Feedback } from '../../model/content.ts';
import type { Item, MetaField } from '../../model/holding.ts';
import { outcome } from '../../model/make.ts';
import { attrOf, booleanAttr } from '../../xml/attrs.ts';
import { child, elements, type XmlElement } from '../../xml/tree.ts';
import { itemContent } from '../contents.ts';
import { originOf, report, type DocumentContext, type DraftItem } from '../draft.ts';
import { bodySpecial } from './body.ts';
import { readOutcomeDeclaration, readResponseDeclaration } from './declarations.ts';
import { readResponseProcessing } from './processing.ts';

const KNOWN = new Set([
  'responseDeclaration',
  'outcomeDeclaration',
  'stylesheet',
  'itemBody',
  'responseProcessing',
  'modalFeedback',
]);

export function readItem(context: DocumentContext, category: string | null): DraftItem {
  const element = context.document.root;
  const rawId = attrOf(element, 'identifier') || 'item';
  const id = context.claim('item', rawId);
  const gathered = itemContent(context, element, id, (e) => special(e));
  const { content } = gathered;
  const special = bodySpecial(context.document, () => content);
  const responses = elements(element, 'responseDeclaration').map(readResponseDeclaration);
  const outcomes = elements(element, 'outcomeDeclaration').map(readOutcomeDeclaration);
  const body = child(element, 'itemBody');
  const processing = readResponseProcessing(child(element, 'responseProcessing'), responses);
  if (processing.unknownTemplate !== null) {
    report(context, element, 'template-unknown', 'warning', { template: processing.unknownTemplate }, id);
  }
  for (const what of new Set(processing.program.untranslated)) {
    report(context, element, 'scoring-untranslated', 'warning', { what }, id);
  }
  for (const other of elements(element)) {
    if (!KNOWN.has(other.name))
      report(context, other, 'opaque-content', 'warning', { what: `<${other.name}>` }, id);
  }
  for (const sheet of elements(element, 'stylesheet')) {
    report(context, sheet, 'stylesheet-ignored', 'note', { href: attrOf(sheet, 'href') }, id);
  }
  const scoreOutcome =
    outcomes.find((o) => o.id === 'SCORE')?.id ??
    outcomes.find((o) => o.baseType === 'float' || o.baseType === 'integer')?.id ??
    'SCORE';
  const maximum = outcomes.find((o) => o.id === scoreOutcome)?.normalMaximum ?? maxScore(outcomes);
  const read = {
    body: body ? bodyOf(buildContent(body.children, content)) : [],
    feedback: elements(element, 'modalFeedback').map((f) =>
      readModal(f, (nodes) => buildContent(nodes, content)),
    ),
  };
  const item: Item = {
    id,
    standard: 'qti2',
    title: attrOf(element, 'title'),
    ...read,
    responses,
    outcomes: outcomes.some((o) => o.id === scoreOutcome) ? outcomes : [...outcomes, outcome(scoreOutcome)],
    scoreOutcome,
    scoring: processing.program,
    pointsSources: maximum === null ? [] : [{ source: 'declared', value: maximum }],
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

const maxScore = (outcomes: Item['outcomes']): number | null => {
  const given = outcomes.find((o) => o.id === 'MAXSCORE')?.defaultValue[0];
  return typeof given === 'number' ? given : null;
};

function metadataOf(element: XmlElement): MetaField[] {
  const fields: MetaField[] = [];
  for (const name of ['label', 'toolName', 'toolVersion']) {
    if (attrOf(element, name)) fields.push({ label: name, value: attrOf(element, name) });
  }
  if (booleanAttr(element, 'adaptive', false)) fields.push({ label: 'adaptive', value: 'true' });
  return fields;
}

function readModal(
  element: XmlElement,
  build: (nodes: XmlElement['children']) => Feedback['content'][number][],
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
