import type { Choice, ContentNode, InteractionKind, MatchInteraction } from '../model/content.ts';
import type { Item } from '../model/holding.ts';
import { picture, response, text } from '../model/make.ts';
import { INTERACTION_NAMES } from '../model/kindNames.ts';
import { interactionsOf, mapLists, walk } from '../model/visit.ts';
import { optionSets } from '../model/options.ts';
import type { Condition12, Test12 } from '../model/conditions12.ts';
import { own } from '../model/own.ts';

export type Profile = 'plain' | 'cartridge';

interface Loss {
  readonly severity: 'error' | 'warning' | 'note';
  readonly what: string;
}

/** An item in kinds that QTI 1.2 has, and how values of its old responses read in the new ones. */
interface Converted {
  readonly item: Item;
  readonly losses: readonly Loss[];
  /** A pair of an old response, as the row that asks for it and the choice it wants. */
  readonly rows: ReadonlyMap<string, (pair: string) => readonly [row: string, choice: string]>;
}

/**
 * What becomes of each kind: itself, another that asks the same, or null where there is no counterpart. The
 * one table of gaps; docs/formats.md shows it and a test holds it to what is written.
 */
export const KIND_SUPPORT = {
  'qti1.2': {
    choice: 'choice',
    order: 'order',
    associate: null,
    match: 'match',
    gapMatch: 'match',
    inlineChoice: 'choice',
    textEntry: 'textEntry',
    extendedText: 'extendedText',
    hottext: 'choice',
    hotspot: 'hotspot',
    selectPoint: 'selectPoint',
    graphicOrder: 'graphicOrder',
    graphicAssociate: null,
    graphicGapMatch: 'match',
    positionObject: null,
    slider: 'slider',
    upload: null,
    drawing: null,
    media: null,
    endAttempt: null,
    custom: null,
  },
  cartridge: {
    choice: 'choice',
    order: null,
    associate: null,
    match: null,
    gapMatch: null,
    inlineChoice: 'choice',
    textEntry: 'textEntry',
    extendedText: 'extendedText',
    hottext: 'choice',
    hotspot: null,
    selectPoint: null,
    graphicOrder: null,
    graphicAssociate: null,
    graphicGapMatch: null,
    positionObject: null,
    slider: 'textEntry',
    upload: null,
    drawing: null,
    media: null,
    endAttempt: null,
    custom: null,
  },
} as const satisfies Record<string, Record<InteractionKind, InteractionKind | null>>;

const supported = (profile: Profile): ReadonlySet<string> =>
  new Set(
    Object.values(KIND_SUPPORT[profile === 'plain' ? 'qti1.2' : 'cartridge']).filter((k) => k !== null),
  );

/** Turns kinds that QTI 1.2 lacks into ones it has where that can be done, and names what cannot. */
export function convertKinds(item: Item, profile: Profile): Converted {
  const losses: Loss[] = [];
  const rows = new Map<string, (pair: string) => readonly [string, string]>();
  const responses = new Map(item.responses.map((r) => [r.id, [r]]));
  const convert = (nodes: readonly ContentNode[]): ContentNode[] => nodes.flatMap((n) => convertNode(n));
  const asRows = (
    node: MatchInteraction,
    pairs: (pair: string) => readonly [string, string],
    as: string,
  ): ContentNode[] => {
    const responseOf = Object.fromEntries(node.left.map((l) => [l.id, `${node.responseId}_${l.id}`]));
    rows.set(node.responseId, (pair) => {
      const [left, right] = pairs(pair);
      return [own(responseOf, left) ?? left, right];
    });
    responses.set(
      node.responseId,
      node.left.map((l) => response(own(responseOf, l.id)!, 'single', 'identifier')),
    );
    if (as) losses.push({ severity: 'note', what: as });
    return [{ ...node, rows: responseOf }];
  };
  const convertNode = (node: ContentNode): ContentNode[] => {
    switch (node.kind) {
      case 'inlineChoice':
        losses.push({ severity: 'note', what: 'a choice within the text becomes a list of choices' });
        return [
          text('____'),
          {
            kind: 'choice',
            responseId: node.responseId,
            prompt: [],
            shuffle: node.shuffle,
            maxChoices: 1,
            minChoices: 0,
            choices: node.choices,
          },
        ];
      case 'hottext': {
        losses.push({ severity: 'note', what: 'words to be picked in a text become a list of choices' });
        const [options = []] = optionSets(node);
        const choices = options.map((o): Choice => ({ id: o.id, content: o.content, fixed: false }));
        return [
          ...convert(node.prompt).map((n) => n),
          ...convert(node.content),
          {
            kind: 'choice',
            responseId: node.responseId,
            prompt: [],
            shuffle: false,
            maxChoices: node.maxChoices,
            minChoices: node.minChoices,
            choices,
          },
        ];
      }
      case 'gapMatch':
      case 'graphicGapMatch': {
        const [choices = [], gaps = []] = optionSets(node);
        const content = node.kind === 'gapMatch' ? numberGaps(node.content) : [picture(node.picture)];
        const made: MatchInteraction = {
          kind: 'match',
          responseId: node.responseId,
          prompt: [],
          shuffle: false,
          maxAssociations: gaps.length,
          minAssociations: 0,
          left: gaps.map((g) => ({ id: g.id, content: [text(g.label || g.id)], fixed: false })),
          right: choices.map((c) => ({ id: c.id, content: c.content, fixed: false })),
          rows: null,
        };
        const swap = (pair: string): readonly [string, string] => {
          const [choice = '', gap = ''] = pair.split(' ');
          return [gap, choice];
        };
        return [...convert(node.prompt), ...content, ...asRows(made, swap, 'gaps become rows of a matching')];
      }
      case 'match': {
        // A single row would read as a list of choices; it goes as a group.
        if (node.rows || node.left.length < 2) return [node];
        const pairs = (pair: string): readonly [string, string] => {
          const [left = '', right = ''] = pair.split(' ');
          return [left, right];
        };
        const key = item.responses.find((r) => r.id === node.responseId)?.correct ?? [];
        const lefts = key.map((k) => pairs(String(k))[0]);
        if (new Set(lefts).size < lefts.length)
          losses.push({ severity: 'warning', what: 'several partners of one row' });
        return asRows(node, pairs, '');
      }
      case 'slider':
        if (profile === 'plain') return [node];
        losses.push({ severity: 'note', what: 'a slider becomes a number to type' });
        return [
          ...node.prompt,
          { kind: 'textEntry', responseId: node.responseId, expectedLength: 8, placeholder: null },
        ];
      default:
        return [mapLists(node, convert)];
    }
  };
  const stimuli = item.stimuli.flatMap((s) => s.content);
  if (stimuli.length > 0)
    losses.push({ severity: 'note', what: 'the shared passage goes into the item itself' });
  const body = convert([...stimuli, ...item.body]);
  const converted: Item = { ...item, body, stimuli: [], responses: [...responses.values()].flat() };
  losses.push(...unsayable(converted, profile));
  return { item: converted, losses, rows };
}

/** What people call the formats that speak a profile. */
const FORMAT_NAMES: Readonly<Record<Profile, string>> = { plain: 'QTI 1.2', cartridge: 'Common Cartridge' };

/** What is left that the profile has no kind for. */
function unsayable(item: Item, profile: Profile): Loss[] {
  const kinds = interactionsOf(item);
  const allowed = supported(profile);
  const losses: Loss[] = kinds
    .filter(
      (i) => !allowed.has(i.kind) && !(i.kind === 'custom' && i.standard === 'qti1.2' && profile === 'plain'),
    )
    .map((i) => ({
      severity: 'error',
      what: `${i.kind === 'custom' ? `<${i.name}>` : `“${INTERACTION_NAMES[i.kind]}”`} is not supported by ${FORMAT_NAMES[profile]}; its text goes along, the question does not work there`,
    }));
  if (profile === 'cartridge' && kinds.length > 1 && losses.length === 0)
    losses.push({
      severity: 'error',
      what: `a question of several parts is not supported by ${FORMAT_NAMES[profile]}; only its text is sure to go along`,
    });
  if (item.templates.length > 0)
    losses.push({
      severity: 'error',
      what: 'its parameters have no counterpart; the version of seed 1 goes along',
    });
  walk(item.body, (node) => {
    if (node.kind === 'opaque' && (node.standard !== 'qti1.2' || profile === 'cartridge'))
      losses.push({ severity: 'warning', what: `<${node.name}> is left out` });
  });
  return losses;
}

/** Gaps in a text are numbered, so that the rows can speak of them. */
function numberGaps(nodes: readonly ContentNode[]): ContentNode[] {
  let count = 0;
  const number = (list: readonly ContentNode[]): ContentNode[] =>
    list.map((n) => {
      if (n.kind !== 'gap') return mapLists(n, number);
      count += 1;
      return text(`[gap ${count}]`);
    });
  return number(nodes);
}

/** Conditions on pairs, asked of the rows instead. */
export function onRows(conditions: readonly Condition12[], rows: Converted['rows']): Condition12[] {
  if (rows.size === 0) return [...conditions];
  const test = (t: Test12): Test12 => {
    switch (t.test) {
      case 'and':
      case 'or':
        return { ...t, parts: t.parts.map(test) };
      case 'not':
        return { ...t, part: test(t.part) };
      case 'equal': {
        const split = rows.get(t.response)?.(t.value);
        return split ? { test: 'equal', response: split[0], value: split[1] } : t;
      }
      default:
        return t;
    }
  };
  return conditions.map((c) => ({ ...c, when: test(c.when) }));
}
