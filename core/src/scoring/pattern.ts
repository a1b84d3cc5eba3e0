import { RE2JS } from 're2js';
import { composed } from '../model/composed.ts';
import { spend } from './budget.ts';
import { translatePattern } from './patternSyntax.ts';

/**
 * Patterns of `patternMatch`, run by an automaton: in time that grows with the text and not with what the pattern
 * makes of it, whatever stands in it.
 */

/** Longer ones are nobody's answer to a question. */
const LONGEST = 1000;
/** So many are remembered compiled. */
const REMEMBERED = 200;
/** What compiling one costs at least, in steps. */
const COMPILING = 200;
/** Steps for each time that what is counted is written out. */
const WRITTEN_OUT = 100;

/** How often the innermost of what is counted stands there once counts are written out. */
function timesWrittenOut(pattern: string): number {
  let times = 1;
  for (const [, least, most] of pattern.matchAll(/\{(\d{1,4})(?:,(\d{0,4}))?\}/gu))
    times = Math.min(1e6, times * Math.max(1, Number(most || least)));
  return times;
}

export type Compiled =
  | { readonly ok: true; readonly matches: (text: string) => boolean }
  | { readonly ok: false; readonly why: string };

const known = new Map<string, Compiled>();

/**
 * A regular expression of XML Schema (Part 2: Datatypes, Appendix F), which always speaks of the whole text (QTI 2.1,
 * "patternMatch"). `ok` is false, with what of it is not understood, where it cannot be run.
 */
export function compilePattern(pattern: string): Compiled {
  let compiled = known.get(pattern);
  if (compiled) return compiled;
  spend(COMPILING);
  compiled = compile(pattern);
  if (known.size >= REMEMBERED) known.delete(known.keys().next().value!);
  known.set(pattern, compiled);
  return compiled;
}

function compile(pattern: string): Compiled {
  if (pattern.length > LONGEST) return { ok: false, why: `more than ${LONGEST} characters` };
  const translated = translatePattern(composed(pattern));
  if (!translated.ok) return translated;
  spend(2 * translated.pattern.length + WRITTEN_OUT * (timesWrittenOut(pattern) - 1));
  try {
    const automaton = RE2JS.compile(translated.pattern);
    return {
      ok: true,
      matches: (text) => {
        spend((text.length * pattern.length) >> 6);
        return automaton.matches(composed(text));
      },
    };
  } catch (error) {
    return { ok: false, why: (error as Error).message.replace(/^error parsing regexp: /u, '') };
  }
}
