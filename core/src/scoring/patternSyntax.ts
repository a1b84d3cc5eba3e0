import { bracketed, writtenClass, type CharacterClass, type Named, type Part } from './characterClass.ts';

/**
 * Regular expressions of XML Schema (XML Schema Part 2: Datatypes, 2nd edition, Appendix F; from memory) in the syntax
 * of RE2. Both are regular, and what each writes is not the same: `\d` is any decimal digit, `.` stops at line ends
 * only, classes subtract one another, `\i` and `\c` are the characters of names. Packages also hold what other
 * engines understand: anchors around the whole, groups that capture nothing, `\u0041`; these are taken as they are meant.
 */

type Translated =
  { readonly ok: true; readonly pattern: string } | { readonly ok: false; readonly why: string };

/** Signals what cannot be translated. */
class Untranslatable extends Error {}
const cannot = (what: string): never => {
  throw new Untranslatable(what);
};

/** Characters that names begin with and go on with (XML 1.0, 2nd edition, productions 4 and 5), by their categories. */
const NAME_START = ':_\\p{L}\\p{Nl}';
const NAME_PART = `${NAME_START}\\-.\\p{Nd}\\p{M}\\x{B7}`;

/** What stands for a class of characters: its members as RE2 writes them in brackets, and whether it is all others. */
const SHORTHANDS: Readonly<Record<string, { readonly members: string; readonly negated: boolean }>> = {
  d: { members: '\\p{Nd}', negated: false },
  D: { members: '\\p{Nd}', negated: true },
  s: { members: ' \\t\\n\\r', negated: false },
  S: { members: ' \\t\\n\\r', negated: true },
  w: { members: '\\p{P}\\p{Z}\\p{C}', negated: true },
  W: { members: '\\p{P}\\p{Z}\\p{C}', negated: false },
  i: { members: NAME_START, negated: false },
  I: { members: NAME_START, negated: true },
  c: { members: NAME_PART, negated: false },
  C: { members: NAME_PART, negated: true },
};

/** Blocks of Unicode by their names without spaces (XML Schema Part 2, F.1.1), those of scripts people write in. */
const BLOCKS: Readonly<Record<string, string>> = {
  BasicLatin: '\\x{0}-\\x{7F}',
  'Latin-1Supplement': '\\x{80}-\\x{FF}',
  'LatinExtended-A': '\\x{100}-\\x{17F}',
  'LatinExtended-B': '\\x{180}-\\x{24F}',
  IPAExtensions: '\\x{250}-\\x{2AF}',
  Greek: '\\x{370}-\\x{3FF}',
  GreekandCoptic: '\\x{370}-\\x{3FF}',
  Cyrillic: '\\x{400}-\\x{4FF}',
  Armenian: '\\x{530}-\\x{58F}',
  Hebrew: '\\x{590}-\\x{5FF}',
  Arabic: '\\x{600}-\\x{6FF}',
  Devanagari: '\\x{900}-\\x{97F}',
  Bengali: '\\x{980}-\\x{9FF}',
  Thai: '\\x{E00}-\\x{E7F}',
  Georgian: '\\x{10A0}-\\x{10FF}',
  HangulJamo: '\\x{1100}-\\x{11FF}',
  LatinExtendedAdditional: '\\x{1E00}-\\x{1EFF}',
  GreekExtended: '\\x{1F00}-\\x{1FFF}',
  GeneralPunctuation: '\\x{2000}-\\x{206F}',
  Arrows: '\\x{2190}-\\x{21FF}',
  MathematicalOperators: '\\x{2200}-\\x{22FF}',
  CJKSymbolsandPunctuation: '\\x{3000}-\\x{303F}',
  Hiragana: '\\x{3040}-\\x{309F}',
  Katakana: '\\x{30A0}-\\x{30FF}',
  CJKUnifiedIdeographs: '\\x{4E00}-\\x{9FFF}',
  HangulSyllables: '\\x{AC00}-\\x{D7A3}',
};

/** A pattern of XML Schema as RE2 takes it; `why` names what has no counterpart. */
export function translatePattern(pattern: string): Translated {
  try {
    return { ok: true, pattern: new Translation(Array.from(pattern)).whole() };
  } catch (error) {
    if (error instanceof Untranslatable) return { ok: false, why: error.message };
    throw error;
  }
}

const literal = (c: string): string => `\\x{${c.codePointAt(0)!.toString(16).toUpperCase()}}`;
/** Characters that mean themselves, in a class and outside. */
const plain = (c: string): string => (/[\p{L}\p{N} ]/u.test(c) ? c : literal(c));

class Translation {
  #at = 0;
  constructor(private readonly text: readonly string[]) {}

  whole(): string {
    let out = '';
    while (this.#at < this.text.length) out += this.#piece();
    return out;
  }

  #next(): string {
    return this.text[this.#at++] ?? cannot('something that is not ended');
  }

  #piece(): string {
    const c = this.#next();
    switch (c) {
      case '.':
        return '[^\\n\\r]';
      case '[':
        return writtenClass(this.#classAt());
      case '\\':
        return this.#escape();
      case '(':
        return this.#group();
      case '{':
        return this.#count();
      case '}':
        return literal(c);
      case ')':
      case '|':
      case '?':
      case '*':
      case '+':
      case '^':
      case '$':
        return c;
      case ']':
        return literal(c);
      default:
        return plain(c);
    }
  }

  /** How often, behind its brace: `{2}`, `{2,}`, `{2,5}`. */
  #count(): string {
    const end = this.text.indexOf('}', this.#at);
    const count = end < 0 ? '' : this.text.slice(this.#at, end).join('');
    if (!/^\d{1,4}(?:,\d{0,4})?$/u.test(count)) cannot(`{${count}} as a count`);
    this.#at = end + 1;
    return `{${count}}`;
  }

  #group(): string {
    if (this.text[this.#at] !== '?') return '(?:';
    const kind = this.text[this.#at + 1] ?? '';
    if (kind !== ':') cannot(`a group that looks around itself (?${kind}`);
    this.#at += 2;
    return '(?:';
  }

  #escape(): string {
    const c = this.#next();
    const short = Object.hasOwn(SHORTHANDS, c) ? SHORTHANDS[c]! : null;
    if (short) return bracketed(short.members, short.negated);
    if (c === 'p' || c === 'P') return bracketed(this.#property(), c === 'P');
    if (c === 'b' || c === 'B') return `\\${c}`;
    if (/[1-9]/u.test(c)) cannot(`\\${c}, which repeats what a group has matched`);
    return this.#escapedCharacter(c);
  }

  /** A character behind a backslash that stands for one character. */
  #escapedCharacter(c: string): string {
    if (c === 'n' || c === 'r' || c === 't') return `\\${c}`;
    if (c === 'u' || c === 'x') return this.#hexadecimal(c === 'u' ? 4 : 2);
    if (/[\p{L}\p{N}]/u.test(c)) cannot(`\\${c}`);
    return literal(c);
  }

  #hexadecimal(digits: number): string {
    const code = this.text.slice(this.#at, this.#at + digits).join('');
    if (code.length < digits || !/^[0-9a-f]+$/iu.test(code))
      cannot(`\\${digits === 4 ? 'u' : 'x'} without its digits`);
    this.#at += digits;
    return `\\x{${code.toUpperCase()}}`;
  }

  /** The members of `{L}` or `{IsGreek}`, behind `\p`. */
  #property(): string {
    const end = this.text.indexOf('}', this.#at);
    if (this.text[this.#at] !== '{' || end < 0) cannot('\\p without its name in braces');
    const name = this.text.slice(this.#at + 1, end).join('');
    this.#at = end + 1;
    if (name.startsWith('Is'))
      return Object.hasOwn(BLOCKS, name.slice(2)) ? BLOCKS[name.slice(2)]! : cannot(`the block ${name}`);
    return /^(?:L[ultmo]?|M[nce]?|N[dlo]?|P[cdseifo]?|Z[slp]?|S[mcko]?|C[cfon]?)$/u.test(name)
      ? `\\p{${name}}`
      : cannot(`the category ${name}`);
  }

  /** A class, behind its opening bracket. */
  #classAt(): CharacterClass {
    const negated = this.text[this.#at] === '^';
    if (negated) this.#at += 1;
    const parts: Part[] = [];
    for (let first = true; ; first = false) {
      const c = this.#next();
      if (c === ']' && !first) return { parts, negated, without: null };
      if (c === '-' && this.text[this.#at] === '[') {
        this.#at += 1;
        const without = this.#classAt();
        if (this.#next() !== ']') cannot('a class that goes on behind what it takes away');
        return { parts, negated, without };
      }
      const part = c === '\\' ? this.#member() : c.codePointAt(0)!;
      const ranges = this.text[this.#at] === '-' && !/[[\]]/u.test(this.text[this.#at + 1] ?? ']');
      if (!ranges || typeof part !== 'number') {
        parts.push(typeof part === 'number' ? [part, part] : part);
        continue;
      }
      this.#at += 1;
      const behind = this.#next();
      const to = behind === '\\' ? this.#member() : behind.codePointAt(0)!;
      if (typeof to !== 'number') parts.push([part, part], [HYPHEN, HYPHEN], to);
      else if (to < part) cannot(`the range ${c}-${behind}`);
      else parts.push([part, to]);
    }
  }

  /** What an escape within a class adds to it: a character's code, or a class of its own. */
  #member(): number | Named {
    const c = this.#next();
    const short = Object.hasOwn(SHORTHANDS, c) ? SHORTHANDS[c]! : null;
    if (short) return short;
    if (c === 'p' || c === 'P') return { members: this.#property(), negated: c === 'P' };
    const written = this.#escapedCharacter(c);
    return ESCAPED[written] ?? Number.parseInt(written.slice(3, -1), 16);
  }
}

const HYPHEN = 0x2d;
const ESCAPED: Readonly<Record<string, number>> = { '\\n': 10, '\\r': 13, '\\t': 9 };
