import type { Feedback } from '../../model/content.ts';
import type { Item } from '../../model/holding.ts';
import type {
  AreaMapping,
  LookupTable,
  Mapping,
  OutcomeDeclaration,
  ResponseDeclaration,
  Scalar,
  TemplateDeclaration,
} from '../../model/scoring.ts';
import { encodePath, relativePath } from '../../intake/paths.ts';
import { escapeText, keepBreaks, xmlDocument } from '../../xml/write.ts';
import type { Markup } from './markup.ts';
import { formatScalar } from './values.ts';
import { asBlocks, standardOf, writeContent, type ContentWriter } from './writeContent.ts';
import { writeProcessing, writeRules } from './writeExpression.ts';

export const rootAttributes = (
  { dialect }: Markup,
  extra: Readonly<Record<string, string | boolean | null>>,
) => ({
  xmlns: dialect.namespace,
  'xmlns:xsi': 'http://www.w3.org/2001/XMLSchema-instance',
  'xsi:schemaLocation': `${dialect.namespace} ${dialect.schema}`,
  ...extra,
});

/** One assessmentItem document. `stimulusAt` says where a stimulus is written. */
export function writeItem(
  item: Item,
  writer: ContentWriter,
  stimulusAt: (path: string) => string | null,
): string {
  const { markup } = writer;
  const meta = (label: string): string | null => item.metadata.find((f) => f.label === label)?.value ?? null;
  // QTI 2.1 has no stimuli: their text goes before the body.
  const asRef = markup.dialect.version !== '2.1';
  const ahead = asRef ? [] : item.stimuli.flatMap((s) => s.content);
  return xmlDocument(
    markup.block(
      'assessmentItem',
      rootAttributes(markup, {
        identifier: item.id,
        title: item.title,
        label: meta('label'),
        adaptive: item.adaptive,
        timeDependent: meta('timeDependent') === 'true',
        'xml:lang': item.language,
        toolName: meta('toolName'),
        toolVersion: meta('toolVersion'),
      }),
      [
        ...item.responses.map((r) => writeResponse(r, markup)),
        ...item.outcomes.map((o) => writeOutcome(o, markup)),
        ...item.templates.map((t) => writeTemplate(t, markup)),
        item.templateRules.length > 0
          ? markup.block('templateProcessing', {}, writeRules(item.templateRules, 'template', markup))
          : '',
        ...(asRef
          ? item.stimuli.map((s) =>
              markup.tag('assessmentStimulusRef', {
                identifier: s.id,
                href: encodePath(relativePath(writer.path, stimulusAt(s.path) ?? s.path)),
                title: s.title || null,
              }),
            )
          : []),
        ...kept(item, markup, (name) => name === 'companionMaterialsInfo'),
        markup.block(
          'itemBody',
          {},
          [...ahead, ...item.body].map((node) => writeContent([node], writer)),
        ),
        ...kept(item, markup, (name) => name === 'catalogInfo'),
        writeProcessing(item.scoring, markup),
        ...item.feedback.map((f) => writeFeedback(f, writer)),
        ...kept(item, markup, (name) => name !== 'catalogInfo' && name !== 'companionMaterialsInfo'),
      ],
    ),
  );
}

/** A stimulus as a document of its own. */
export function writeStimulus(stimulus: Item['stimuli'][number], writer: ContentWriter): string {
  const { markup } = writer;
  return xmlDocument(
    markup.block(
      'assessmentStimulus',
      rootAttributes(markup, { identifier: stimulus.id, title: stimulus.title }),
      [
        markup.block(
          'stimulusBody',
          {},
          stimulus.content.map((n) => writeContent([n], writer)),
        ),
      ],
    ),
  );
}

/** Whole parts that go back to the standard they came from. */
const kept = (item: Item, markup: Markup, wanted: (name: string) => boolean): string[] =>
  item.kept.filter((k) => k.standard === standardOf(markup) && wanted(k.name)).map((k) => keepBreaks(k.xml));

const values = (name: string, list: readonly Scalar[], markup: Markup): string =>
  list.length === 0
    ? ''
    : markup.block(
        name,
        {},
        list.map((v) => markup.tag('value', {}, escapeText(formatScalar(v)))),
      );

function writeResponse(response: ResponseDeclaration, markup: Markup): string {
  return markup.block(
    'responseDeclaration',
    { identifier: response.id, cardinality: response.cardinality, baseType: response.baseType },
    [
      values('defaultValue', response.defaultValue ?? [], markup),
      values('correctResponse', response.correct, markup),
      response.mapping ? writeMapping(response.mapping, markup) : '',
      response.areaMapping ? writeAreas(response.areaMapping, markup) : '',
    ],
  );
}

const bounds = (m: Mapping | AreaMapping) => ({
  lowerBound: m.lowerBound,
  upperBound: m.upperBound,
  defaultValue: m.defaultValue,
});

/** Whether capitals count is written wherever a reader would take the other for granted. */
function writeMapping(mapping: Mapping, markup: Markup): string {
  const byDefault = !markup.dialect.hyphenated;
  return markup.block(
    'mapping',
    bounds(mapping),
    mapping.entries.map((e) =>
      markup.tag('mapEntry', {
        mapKey: formatScalar(e.key),
        mappedValue: e.value,
        caseSensitive: e.caseSensitive === byDefault ? null : e.caseSensitive,
      }),
    ),
  );
}

const writeAreas = (mapping: AreaMapping, markup: Markup): string =>
  markup.block(
    'areaMapping',
    bounds(mapping),
    mapping.entries.map((e) =>
      markup.tag('areaMapEntry', { shape: e.shape, coords: e.coords, mappedValue: e.value }),
    ),
  );

export function writeOutcome(outcome: OutcomeDeclaration, markup: Markup): string {
  return markup.block(
    'outcomeDeclaration',
    {
      identifier: outcome.id,
      cardinality: outcome.cardinality,
      baseType: outcome.baseType,
      normalMaximum: outcome.normalMaximum,
      normalMinimum: outcome.normalMinimum,
      masteryValue: outcome.masteryValue ?? null,
      externalScored: outcome.externalScored ? 'human' : null,
      ...outcome.attrs,
    },
    [
      values('defaultValue', outcome.defaultValue, markup),
      outcome.lookup ? writeLookup(outcome.lookup, markup) : '',
    ],
  );
}

const writeTemplate = (template: TemplateDeclaration, markup: Markup): string =>
  markup.block(
    'templateDeclaration',
    {
      identifier: template.id,
      cardinality: template.cardinality,
      baseType: template.baseType,
      ...template.attrs,
    },
    [values('defaultValue', template.defaultValue, markup)],
  );

function writeLookup(table: LookupTable, markup: Markup): string {
  const match = table.kind === 'match';
  return markup.block(
    match ? 'matchTable' : 'interpolationTable',
    { defaultValue: table.defaultValue },
    table.entries.map((e) =>
      markup.tag(match ? 'matchTableEntry' : 'interpolationTableEntry', {
        sourceValue: e.source,
        includeBoundary: match || e.includeBoundary ? null : false,
        targetValue: formatScalar(e.target),
      }),
    ),
  );
}

function writeFeedback(feedback: Feedback, writer: ContentWriter): string {
  const { markup } = writer;
  const content = markup.dialect.hyphenated
    ? markup.tag('contentBody', {}, asBlocks(feedback.content, writer))
    : writeContent(feedback.content, writer);
  return markup.tag(
    'modalFeedback',
    {
      outcomeIdentifier: feedback.outcome,
      identifier: feedback.id,
      showHide: feedback.show ? 'show' : 'hide',
      title: feedback.title || null,
    },
    content,
  );
}
