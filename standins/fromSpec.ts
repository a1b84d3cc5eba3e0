import { escape } from '../demo/qti12.ts';
import type { ItemSpec } from '../demo/items.ts';
import { type Answer, type HeldItem } from './held.ts';

/** What a system's mark-up is: HTML within QTI 1.2, XML within QTI 2.1. */
export type Markup = 'html' | 'xml';

/** An item of the demo as a system keeps it. */
export function heldFrom(spec: ItemSpec, id: string, markup: Markup): HeldItem {
  const text = (source: string): string => markupOf(source, markup);
  return {
    id,
    title: spec.title ?? '',
    category: spec.category ?? null,
    points: spec.points,
    body: text(spec.stem),
    answer: answerOf(spec, text),
    feedback: spec.feedback === undefined ? [] : [{ id: 'general', on: null, text: text(spec.feedback) }],
  };
}

/** The demo's questions are HTML that names files by their paths. */
function markupOf(source: string, markup: Markup): string {
  const held = source.replace(
    /\bsrc="(?!https?:)([^"]*)"/gu,
    (_, path: string) => `src="held:${encodeURIComponent(path)}"`,
  );
  if (markup === 'html') return held;
  return held
    .replace(/&nbsp;/gu, '&#160;')
    .replace(
      /<(img|br|hr)\b([^<>]*)>/gu,
      (_, name: string, rest: string) => `<${name}${rest.replace('/', '').trimEnd()}/>`,
    )
    .replace(/&(?![#\w]+;)/gu, '&amp;');
}

function answerOf(spec: ItemSpec, text: (source: string) => string): Answer {
  switch (spec.kind) {
    case 'essay':
      return { kind: 'essay' };
    case 'text': {
      const { caseSensitive = false, points } = spec;
      return { kind: 'text', accepted: spec.answers.map((a) => ({ text: a, caseSensitive, worth: points })) };
    }
    case 'number': {
      const { value, tolerance = 0, points } = spec;
      const end = (n: number): number => Number(n.toFixed(6));
      const ends = { low: end(value - tolerance), high: end(value + tolerance) };
      const accepted = [{ exact: value, ...ends, includesLow: true, includesHigh: true, worth: points }];
      return { kind: 'number', accepted };
    }
    default:
      return choiceOf(spec, text);
  }
}

function choiceOf(spec: Extract<ItemSpec, { choices: unknown }>, text: (source: string) => string): Answer {
  const choices = spec.choices.map((c, at) => ({ ...c, id: String.fromCharCode(65 + at) }));
  const right = choices.filter((c) => c.right).map((c) => c.id);
  const each = Number((spec.points / Math.max(1, right.length)).toFixed(4));
  const worth = Object.fromEntries(choices.map((c) => [c.id, c.right ? each : -each]));
  return {
    kind: 'choice',
    prompt: null,
    maxChoices: spec.kind === 'single' ? 1 : 0,
    shuffle: spec.shuffle ?? false,
    choices: choices.map((c) => ({ id: c.id, text: text(escape(c.text)), fixed: c.pinned ?? false })),
    marking:
      spec.kind === 'multiple' && spec.perChoice && right.length > 0
        ? { by: 'each', worth, least: 0, most: spec.points }
        : { by: 'all', right },
  };
}
