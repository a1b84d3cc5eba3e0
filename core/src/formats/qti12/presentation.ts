// <presentation><material/><response_lid ident="r" rcardinality="Single"><render_choice>…</render_choice></response_lid></presentation>
import type { Choice, ContentNode, CustomInteraction, Interaction } from '../../model/content.ts';
import { element as make, response } from '../../model/make.ts';
import type { BaseType, Cardinality, ResponseDeclaration } from '../../model/scoring.ts';
import { bodyOf, isBlock, tidy } from '../../content/tidy.ts';
import { attrOf, booleanAttr, numberAttr } from '../../xml/attrs.ts';
import { child, descendants, elements, isElement, rawXml, type XmlElement } from '../../xml/tree.ts';
import { isMaterial, readMaterial, readMaterials, type MaterialContext } from './material.ts';

export interface PresentationContext extends MaterialContext {
  /** Free text even where the renderer has one row: the item's metadata say a person marks it. */
  readonly essay: boolean;
  /** Responses that the scoring compares as numbers. */
  readonly numeric: ReadonlySet<string>;
}

export interface Presented {
  readonly body: readonly ContentNode[];
  readonly responses: readonly ResponseDeclaration[];
}

interface Read {
  readonly interaction: Interaction;
  readonly response: ResponseDeclaration | null;
}

type ResponseReader = (element: XmlElement, context: PresentationContext) => Read | null;

/** One reader a response and renderer; the first that takes the element wins, else it is kept whole. */
const READERS: readonly ResponseReader[] = [readChoice, readFillIn];

const RESPONSES = new Set([
  'response_lid',
  'response_str',
  'response_num',
  'response_xy',
  'response_grp',
  'response_extension',
]);
const GROUPS = new Set(['flow', 'flow_mat', 'presentation']);

export function readPresentation(presentation: XmlElement, context: PresentationContext): Presented {
  const responses: ResponseDeclaration[] = [];
  const out: ContentNode[] = [];
  const inline = descendants(presentation, 'render_fib').length > 0;
  const visit = (parent: XmlElement): void => {
    for (const element of parent.children.filter(isElement)) {
      if (RESPONSES.has(element.name)) {
        const { interaction, response: declared } = readResponse(element, context);
        if (declared) responses.push(declared);
        out.push(interaction);
      } else if (isMaterial(element) && element.name !== 'flow_mat') {
        const nodes = readMaterial(element, context);
        // Without blanks to fill in, each material is a paragraph of its own.
        if (inline || nodes.some(isBlock)) out.push(...nodes);
        else out.push(make('p', nodes));
      } else if (GROUPS.has(element.name)) visit(element);
      else {
        context.content.note('opaque-content', 'warning', { what: `<${element.name}>` });
        out.push({
          kind: 'opaque',
          standard: 'qti1.2',
          name: element.name,
          xml: rawXml(context.document, element),
        });
      }
    }
  };
  visit(presentation);
  return { body: bodyOf(out), responses };
}

function readResponse(element: XmlElement, context: PresentationContext): Read {
  for (const reader of READERS) {
    const read = reader(element, context);
    if (read) return read;
  }
  context.content.note('opaque-content', 'warning', { what: `<${element.name}>` });
  const custom: CustomInteraction = {
    kind: 'custom',
    responseId: attrOf(element, 'ident') || null,
    standard: 'qti1.2',
    name: element.name,
    xml: rawXml(context.document, element),
    fallback: descendants(element, 'response_label').map((label) =>
      make('p', tidy(labelContent(label, context))),
    ),
  };
  return { interaction: custom, response: null };
}

function cardinalityOf(element: XmlElement): Cardinality {
  const given = attrOf(element, 'rcardinality').toLowerCase();
  return given === 'multiple' ? 'multiple' : given === 'ordered' ? 'ordered' : 'single';
}

function readChoice(element: XmlElement, context: PresentationContext): Read | null {
  if (element.name !== 'response_lid') return null;
  const render = child(element, 'render_choice');
  const cardinality = cardinalityOf(element);
  if (!render || cardinality === 'ordered') return null;
  const id = attrOf(element, 'ident');
  const choices: Choice[] = descendants(render, 'response_label').map((label, at) => ({
    id: attrOf(label, 'ident') || `choice-${at + 1}`,
    content: tidy(labelContent(label, context)),
    fixed: attrOf(label, 'rshuffle').toLowerCase() === 'no',
  }));
  return {
    interaction: {
      kind: 'choice',
      responseId: id,
      shuffle: booleanAttr(render, 'shuffle', false),
      maxChoices: cardinality === 'single' ? 1 : (numberAttr(render, 'maxnumber') ?? 0),
      minChoices: numberAttr(render, 'minnumber') ?? 0,
      prompt: promptOf(element, context),
      choices,
    },
    response: response(id, cardinality, 'identifier'),
  };
}

function readFillIn(element: XmlElement, context: PresentationContext): Read | null {
  if (element.name !== 'response_str' && element.name !== 'response_num' && element.name !== 'response_lid')
    return null;
  const render = child(element, 'render_fib');
  // Several labels in one response are several blanks told apart by index.
  if (!render || descendants(render, 'response_label').length > 1 || cardinalityOf(element) !== 'single')
    return null;
  const id = attrOf(element, 'ident');
  const rows = numberAttr(render, 'rows') ?? 1;
  const columns = numberAttr(render, 'columns') ?? numberAttr(render, 'maxchars');
  const baseType = fillInType(element, render, context);
  const declared = response(id, 'single', baseType);
  if (rows > 1 || context.essay) {
    const prompt = promptOf(element, context);
    const lines = rows > 1 ? rows : null;
    return {
      interaction: {
        kind: 'extendedText',
        responseId: id,
        prompt,
        expectedLines: lines,
        expectedLength: columns,
      },
      response: declared,
    };
  }
  return {
    interaction: { kind: 'textEntry', responseId: id, expectedLength: columns, placeholder: null },
    response: declared,
  };
}

/** Numbers where the renderer says so, or where the scoring compares the answer as one. */
function fillInType(element: XmlElement, render: XmlElement, context: PresentationContext): BaseType {
  const fibtype = attrOf(render, 'fibtype').toLowerCase();
  if (fibtype === 'integer') return 'integer';
  if (element.name === 'response_num' || fibtype === 'decimal' || fibtype === 'scientific') return 'float';
  return context.numeric.has(attrOf(element, 'ident')) ? 'float' : 'string';
}

function promptOf(element: XmlElement, context: PresentationContext): ContentNode[] {
  return tidy(
    elements(element)
      .filter(isMaterial)
      .flatMap((e) => readMaterial(e, context)),
  );
}

function labelContent(label: XmlElement, context: MaterialContext): ContentNode[] {
  return readMaterials(label, context);
}
