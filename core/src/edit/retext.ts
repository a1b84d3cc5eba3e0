import type { ContentNode } from '../model/content.ts';
import { element, text } from '../model/make.ts';
import { mapLists } from '../model/visit.ts';
import { refused, type Refused } from './refusal.ts';
import {
  blanksIn,
  coreOf,
  stepsBetween,
  tokensOf,
  words,
  type Piece,
  type Step,
  type Token,
} from './wordSteps.ts';

/**
 * The same content with another text, mark-up kept where the text is unchanged: words that stay stay in the
 * emphasis, the list or the table they stand in, new ones go where the words before them stand. Interactions
 * keep their places, which plain text shows as "___"; those at either end need not be repeated.
 */
export function withText(nodes: readonly ContentNode[], to: string): ContentNode[] | Refused {
  const tokens = tokensOf(nodes);
  const wanted = words(to);
  const whole = blanksIn(tokens.map((t) => t.text)) === blanksIn(wanted);
  const core = whole ? tokens : tokens.slice(...coreOf(tokens.map((t) => t.text)));
  const said = whole ? wanted : wanted.slice(...coreOf(wanted));
  const blanks = blanksIn(core.map((t) => t.text));
  if (blanks !== blanksIn(said)) return refused('blanks-changed', { blanks });
  if (!core.some((t) => t.parts.some((p) => p.piece !== null)))
    return [...(to.trim() === '' ? [] : [element('p', [text(to.trim())])]), ...nodes];
  const only = onlyPiece(core);
  if (only) return rebuild(nodes, { ...NO_TEXTS, of: new Map([[only, said.join('')]]), ends: [only, only] });
  return rebuild(nodes, distribute(stepsBetween(core, said), core));
}

/** Where all of the text stands in one piece, it can be put there as it is. */
function onlyPiece(core: readonly Token[]): Piece | null {
  const [first] = core[0]?.parts ?? [];
  const piece = first?.piece ?? null;
  if (!piece || piece.solid) return null;
  return core.every((t) => t.parts.every((p) => p.piece === piece)) ? piece : null;
}

/** What pieces say now, and what is to stand right before or after one that cannot say anything else. */
interface Texts {
  readonly of: ReadonlyMap<Piece, string>;
  readonly ahead: ReadonlyMap<Piece, string>;
  readonly after: ReadonlyMap<Piece, string>;
  /** Formulas of which something has changed: they are text from now on. */
  readonly broken: ReadonlySet<Piece>;
  /** The first and the last piece, whose blanks at the outer ends stay. */
  readonly ends: readonly [Piece | null, Piece | null];
}

const NO_TEXTS: Texts = {
  of: new Map(),
  ahead: new Map(),
  after: new Map(),
  broken: new Set(),
  ends: [null, null],
};

/** Formulas that lose something, or get something in their middle. */
function brokenBy(steps: readonly Step[]): Set<Piece> {
  const broken = new Set<Piece>();
  const pieceOf = (s: Step | undefined): Piece | null => (s && s.do !== 'add' ? s.part.piece : null);
  steps.forEach((step, at) => {
    const piece = pieceOf(step);
    if (step.do === 'drop' && piece?.solid) broken.add(piece);
    const before = pieceOf(steps[at - 1]);
    if (step.do === 'add' && before?.solid && before === pieceOf(steps[at + 1])) broken.add(before);
  });
  return broken;
}

/** For every step the piece that is read next. */
function followingPieces(steps: readonly Step[]): (Piece | null)[] {
  const out: (Piece | null)[] = [];
  let next: Piece | null = null;
  for (let at = steps.length - 1; at >= 0; at--) {
    out[at] = next;
    const step = steps[at]!;
    if (step.do !== 'add' && step.part.piece) next = step.part.piece;
  }
  return out;
}

function distribute(steps: readonly Step[], core: readonly Token[]): Texts {
  const pieces = core.flatMap((t) => t.parts.flatMap((p) => (p.piece ? [p.piece] : [])));
  const broken = brokenBy(steps);
  const holds = (p: Piece | null): p is Piece => p !== null && (!p.solid || broken.has(p));
  const of = new Map(pieces.map((p) => [p, '']));
  const [ahead, after] = [new Map<Piece, string>(), new Map<Piece, string>()];
  const append = (to: Map<Piece, string>, piece: Piece, said: string): void =>
    void to.set(piece, (to.get(piece) ?? '') + said);
  let before: Piece | null = null;
  // Whether the last thing read was the blank between two blocks, which stands in no piece.
  let apart = false;
  const next = followingPieces(steps);
  steps.forEach((step, at) => {
    if (step.do !== 'add') {
      const { piece, text: said } = step.part;
      apart = piece === null && step.do === 'keep';
      if (!piece) return;
      if (step.do === 'keep') append(of, piece, said);
      if (said !== ' ' && (step.do === 'keep' || holds(piece))) before = piece;
      return;
    }
    const following = next[at]!;
    if (apart && holds(following)) append(of, following, step.text);
    else if (holds(before)) {
      const now = of.get(before)!;
      if (apart && step.text !== ' ' && now !== '' && !now.endsWith(' ')) append(of, before, ' ');
      append(of, before, step.text);
    } else if (holds(following)) append(of, following, step.text);
    else if (before) append(after, before, step.text);
    else append(ahead, following ?? pieces[0]!, step.text);
    apart &&= holds(following);
  });
  return { of, ahead, after, broken, ends: [pieces[0] ?? null, pieces.at(-1) ?? null] };
}

/** Content with the pieces' new texts; what has none left and held nothing else is gone. */
function rebuild(nodes: readonly ContentNode[], { of, ahead, after, broken, ends }: Texts): ContentNode[] {
  const lost = new Set([...broken].map((p) => p.node));
  const said = new Map([...of].map(([piece, t]) => [piece.node, t]));
  const beside = (
    texts: ReadonlyMap<Piece, string>,
    put: (t: string) => string,
  ): Map<ContentNode, ContentNode[]> => new Map([...texts].map(([piece, t]) => [piece.node, [text(put(t))]]));
  const before = beside(ahead, (t) => (t.endsWith(' ') ? t : `${t} `));
  const behind = beside(after, (t) => (t.startsWith(' ') ? t : ` ${t}`));
  const own = (node: ContentNode): ContentNode[] => {
    const now = said.get(node)!;
    if (node.kind !== 'text') return !lost.has(node) ? [node] : now === '' ? [] : [text(now)];
    const lead = node === ends[0]?.node ? (/^\s+/u.exec(node.text)?.[0] ?? '') : '';
    const trail = node === ends[1]?.node ? (/(?<!\s)\s+$/u.exec(node.text)?.[0] ?? '') : '';
    const full = `${now.startsWith(' ') ? '' : lead}${now}${now.endsWith(' ') ? '' : trail}`;
    return full.trim() === '' && now === '' ? [] : [text(full)];
  };
  const list = (all: readonly ContentNode[]): ContentNode[] =>
    all.flatMap((node): ContentNode[] => {
      if (said.has(node)) return [...(before.get(node) ?? []), ...own(node), ...(behind.get(node) ?? [])];
      const made = mapLists(node, list);
      const emptied =
        node.kind === 'element' &&
        node.children.length > 0 &&
        made.kind === 'element' &&
        made.children.length === 0;
      return emptied ? [] : [made];
    });
  return list(nodes);
}
