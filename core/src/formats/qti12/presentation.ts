// <presentation><material/><response_lid ident="r"
// rcardinality="Single"><render_choice>…</render_choice></response_lid></presentation>
import type { ContentNode, CustomInteraction, OpaqueNode } from '../../model/content.ts';
import { cutList } from '../../model/lists.ts';
import { element as make } from '../../model/make.ts';
import type { ResponseDeclaration } from '../../model/scoring.ts';
import { bodyOf, isBlock, tidy } from '../../content/tidy.ts';
import { attrOf } from '../../xml/attrs.ts';
import { descendants, elements, hasDescendant, rawXml, type XmlElement } from '../../xml/tree.ts';
import { isMaterial, readMaterial, readMaterials } from './material.ts';
import { readMatchRows } from './match.ts';
import { READERS, type PresentationContext, type Read } from './responses.ts';

interface Presented {
  readonly body: readonly ContentNode[];
  readonly responses: readonly ResponseDeclaration[];
  /** Blanks that stand in one response: response id to the ids of its blanks, in order. */
  readonly blanks: ReadonlyMap<string, readonly string[]>;
}

const RESPONSES = new Set([
  'response_lid',
  'response_str',
  'response_num',
  'response_xy',
  'response_grp',
  'response_extension',
]);
const GROUPS = new Set(['flow_mat', 'presentation']);

export function readPresentation(presentation: XmlElement, context: PresentationContext): Presented {
  const responses: ResponseDeclaration[] = [];
  const blanks = new Map<string, readonly string[]>();
  const inline = hasDescendant(presentation, 'render_fib');
  const rows = readMatchRows(presentation, context);
  const take = (read: Read): void => {
    for (const response of read.responses) responses.push(response);
    if (read.blanks) blanks.set(read.blanks.response, read.blanks.ids);
    for (const node of read.nodes) out.push(node);
  };
  let out: ContentNode[] = [];
  /** A flow is a block: what stands in line in it is a paragraph of its own. */
  const readFlow = (flow: XmlElement): void => {
    const before = out;
    out = [];
    visit(flow);
    const inside = bodyOf(out);
    out = before;
    out.push(...inside);
  };
  const visit = (parent: XmlElement): void => {
    for (const element of elements(parent)) {
      if (RESPONSES.has(element.name)) {
        // The rows of a match are read together, where the first of them stands.
        if (rows?.elements.has(element)) {
          if (element === rows.first) take(rows.read);
        } else take(readResponse(element, context));
      } else if (isMaterial(element) && element.name !== 'flow_mat') {
        const nodes = readMaterial(element, context);
        // Without blanks to fill in, each material is a paragraph of its own.
        if (inline || nodes.some(isBlock)) out.push(...nodes);
        else out.push(make('p', nodes));
      } else if (element.name === 'flow') readFlow(element);
      else if (GROUPS.has(element.name)) visit(element);
      else out.push(opaque(element, context));
    }
  };
  visit(presentation);
  return { body: bodyOf(out), responses: cutList(responses), blanks };
}

function opaque(element: XmlElement, context: PresentationContext): OpaqueNode {
  context.content.note('opaque-content', 'warning', { what: `<${element.name}>` });
  return {
    kind: 'opaque',
    standard: 'qti1.2',
    name: element.name,
    xml: rawXml(context.document, element),
  };
}

/** The first reader that takes a response and its renderer; else it is kept whole. */
function readResponse(element: XmlElement, context: PresentationContext): Read {
  for (const reader of READERS) {
    const read = reader(element, context);
    if (read) return read;
  }
  context.content.note('opaque-content', 'warning', { what: `<${element.name}>` });
  const prompt = elements(element).filter(isMaterial);
  const custom: CustomInteraction = {
    kind: 'custom',
    responseId: attrOf(element, 'ident') || null,
    standard: 'qti1.2',
    name: element.name,
    xml: rawXml(context.document, element),
    fallback: [
      ...prompt.map((m) => make('p', tidy(readMaterial(m, context)))),
      ...descendants(element, 'response_label').map((label) =>
        make('p', tidy(readMaterials(label, context))),
      ),
    ],
  };
  return { nodes: [custom], responses: [] };
}
