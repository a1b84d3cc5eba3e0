import { LAYOUTS, type Laid, type Line } from './layouts.ts';
import { LANGUAGES, type Language } from './truth.ts';
import { asDocx, asHtml, asRtf, asText } from './writers.ts';

/** Every document of the tests: a layout in a language and a format, with what it says. */
export interface Case {
  readonly name: string;
  readonly format: 'text' | 'rtf' | 'html' | 'docx';
  readonly language: Language;
  readonly layout: string;
  readonly laid: Laid;
  readonly write: (lines: readonly Line[]) => Promise<Uint8Array>;
}

const ENDINGS = { text: 'txt', rtf: 'rtf', html: 'html', docx: 'docx' } as const;
/** Layouts whose marks of the pen a plain text cannot show. */
const OF_THE_PEN = new Set(['bold', 'automatic-bold', 'automatic-highlight', 'underline', 'red', 'grid']);

export function corpus(): Case[] {
  return Object.entries(LAYOUTS).flatMap(([layout, lay]) =>
    LANGUAGES.flatMap((language) =>
      (['text', 'rtf', 'html', 'docx'] as const)
        .filter((format) => format !== 'text' || !OF_THE_PEN.has(layout))
        .map((format): Case => ({
          name: `${layout}-${language.words.language}.${ENDINGS[format]}`,
          format,
          language,
          layout,
          laid: lay(language),
          write: (lines) => written(format, lines, language),
        })),
    ),
  );
}

async function written(
  format: Case['format'],
  lines: readonly Line[],
  { words }: Language,
): Promise<Uint8Array> {
  const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
  switch (format) {
    case 'text':
      return bytes(asText(lines, words));
    case 'html':
      return bytes(asHtml(lines, words));
    case 'rtf':
      return asRtf(lines, words);
    case 'docx':
      return asDocx(lines, words);
  }
}
