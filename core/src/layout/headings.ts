import { shareOf } from '../document/runs.ts';
import type { Line } from './lines.ts';

/** Titles of chapters, parts and kinds of question, whether the document marks them as headings or not. */

export interface Heading {
  readonly text: string;
  /** How headings of one kind are told: their style, their word before the number, or their look. */
  readonly form: string;
  readonly line: Line;
  /** It names a kind of question, not a place. */
  readonly namesKind: boolean;
}
const LONGEST = 110;
const WORD_NUMBER =
  /^(\p{L}[\p{L}\p{M}]{1,15})\s+([1-9\u0661-\u0669\u06F1-\u06F9]\p{Nd}?|[IVXLC]{1,6}|[A-HА-Е])(?![\p{L}\p{Nd}])/u;
const CJK_NUMBER = /^第\s?([\p{Nd}一二三四五六七八九十]{1,4})\s?([章部編節回课課单單])/u;

/** Words for kinds of questions, as headings have them. */
const KIND_WORDS = new RegExp(
  [
    'multiple[- ]choice|multiple response|true[ /-]*(?:(?:or|and)[ /-]*)?false|short[- ]answer',
    'essay|matching|fill[- ]in|completion|numerical|problems?$|opción múltiple',
    'selección múltiple|verdadero (?:o|y|/) ?falso|respuesta (?:corta|breve)|desarrollo',
    'emparejamiento|multiple-choice-fragen|mehrfachauswahl|auswahlfragen',
    'richtig (?:oder|/) ?falsch|kurzantwort|freitext|aufsatz|zuordnung|lückentext',
    'choix multiples?|vrai (?:ou|/) ?faux|réponses? courtes?|rédaction|выбор(?:ом)? ответ',
    'верно (?:или|/) ?неверно|краткий ответ|эссе|соответстви|اختيار من متعدد',
    'صح (?:أو|أم|و) ?خطأ|مقال|選択問題|正誤問題|記述問題|多肢選択|选择题|判断题',
  ].join('|'),
  'iu',
);

/** Lines are asked again under every hypothesis. */
const known = new WeakMap<Line, Heading | null>();

/** A line as a heading; null where it is none. @param first whether it opens a run of items, where a title may stand */
export function headingOf(line: Line, first: boolean): Heading | null {
  if (first) return readHeading(line, true);
  let found = known.get(line);
  if (found === undefined) known.set(line, (found = readHeading(line, false)));
  return found;
}

function readHeading(line: Line, first: boolean): Heading | null {
  const text = line.automatic && line.labels[0] ? line.text : line.text;
  if (line.table || text === '' || text.length > LONGEST) return null;
  const namesKind = KIND_WORDS.test(text) && text.length < 80;
  const made = (form: string): Heading => ({ text, form, line, namesKind });
  if (line.heading > 0) return made(`h${line.heading}`);
  if (/[.?!。؟:：;,]$/u.test(text) && !namesKind) return null;
  if (namesKind) return made('kind');
  const numbered = WORD_NUMBER.exec(text);
  if (numbered) return made(`word ${numbered[1]!.toLowerCase()}`);
  const cjk = CJK_NUMBER.exec(text);
  if (cjk) return made(`word ${cjk[2]!}`);
  if (line.labels.some((l) => l.ordinal > 0 && !l.shape.includes(' ')) && !line.automatic)
    return shareOf(line.runs, (l) => l.bold) > 0.9 ? made('bold') : null;
  if (shareOf(line.runs, (l) => l.bold) > 0.9) return made('bold');
  if (/\p{Lu}{3}/u.test(text) && text === text.toUpperCase()) return made('capitals');
  return first && (line.apart || line.at === 0) && text.split(/\s+/u).length <= 12 ? made('title') : null;
}
