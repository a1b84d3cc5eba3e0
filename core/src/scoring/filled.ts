// <p>Sail <printedVariable identifier="D"/> miles.</p><templateInline templateIdentifier="V" identifier="east">…</templateInline>
import type { Choice, ContentNode, Interaction } from '../model/content.ts';
import type { TemplateDeclaration } from '../model/scoring.ts';
import { text } from '../model/make.ts';
import { isInteraction, mapLists } from '../model/visit.ts';
import { printedText } from './printed.ts';
import type { Value } from './value.ts';

/** What template processing gave, and what was declared of it. */
export interface Filling {
  readonly values: ReadonlyMap<string, Value>;
  readonly templates: readonly TemplateDeclaration[];
}

/**
 * Content as one candidate reads it: template variables printed, parts that depend on them shown or gone, and
 * their names inside formulas in numbers (QTI 2.1 Information Model, "printedVariable", "templateInline", and
 * "mathVariable" of a template declaration).
 */
export function filledContent(nodes: readonly ContentNode[], filling: Filling): ContentNode[] {
  const inMath = new Set(
    filling.templates.filter((t) => t.attrs['mathVariable'] === 'true').map((t) => t.id),
  );
  const list = (given: readonly ContentNode[], math: boolean): ContentNode[] =>
    joined(
      given.flatMap((node): ContentNode[] => {
        if (node.kind === 'printedVariable')
          return filling.values.has(node.id)
            ? [text(printedText(filling.values.get(node.id)!, node.attrs))]
            : [node];
        if (node.kind === 'template')
          return filling.values.has(node.template)
            ? shows(node, filling.values)
              ? list(node.children, math)
              : []
            : [node];
        if (math && node.kind === 'element' && (node.name === 'mi' || node.name === 'ci')) {
          const name = onlyText(node.children);
          if (name !== null && inMath.has(name) && filling.values.has(name))
            return [
              {
                ...node,
                name: node.name === 'mi' ? 'mn' : 'cn',
                children: [text(printedText(filling.values.get(name)!))],
              },
            ];
        }
        const filled = mapLists(node, (inside) => list(inside, math || node.kind === 'math'));
        return [isInteraction(filled) ? withShownChoices(filled, filling.values) : filled];
      }),
    );
  return list(nodes, false);
}

/** Texts that now stand side by side as one. */
function joined(nodes: readonly ContentNode[]): ContentNode[] {
  const out: ContentNode[] = [];
  for (const node of nodes) {
    const before = out.at(-1);
    if (node.kind === 'text' && before?.kind === 'text') out[out.length - 1] = text(before.text + node.text);
    else out.push(node);
  }
  return out;
}

const onlyText = (nodes: readonly ContentNode[]): string | null =>
  nodes.length === 1 && nodes[0]!.kind === 'text' ? nodes[0]!.text.trim() : null;

/** Whether a part that depends on a template variable is there. */
function shows(
  part: { readonly template: string; readonly identifier: string; readonly show: boolean },
  values: ReadonlyMap<string, Value>,
): boolean {
  const held = (values.get(part.template)?.values ?? []).map(String).includes(part.identifier);
  return held === part.show;
}

/** Choices that this candidate is not shown are none of theirs. */
function withShownChoices(interaction: Interaction, values: ReadonlyMap<string, Value>): Interaction {
  const shown = (choices: readonly Choice[]): Choice[] =>
    choices.flatMap((c): Choice[] => {
      if (!c.template || !values.has(c.template.id)) return [c];
      const { template, ...rest } = c;
      return shows({ ...template, template: template.id }, values) ? [rest] : [];
    });
  switch (interaction.kind) {
    case 'choice':
    case 'order':
    case 'associate':
    case 'inlineChoice':
    case 'gapMatch':
    case 'graphicGapMatch':
      return { ...interaction, choices: shown(interaction.choices) };
    case 'match':
      return { ...interaction, left: shown(interaction.left), right: shown(interaction.right) };
    default:
      return interaction;
  }
}
