import { readFile, writeFile } from 'node:fs/promises';
import { CHECKS, INTERACTION_KINDS, KIND_SUPPORT, REPAIRABLE, RUBRIC_CHECKS, WORDS } from '@alforja/core';

/** Parts of the documentation that are made from the code: node --import tsx scripts/docs.ts */

export function checksDocument(): string {
  const row = ({ code, severity }: { code: keyof typeof WORDS; severity: string }): string =>
    `| \`${code}\` | ${severity} | ${WORDS[code].message} | ${WORDS[code].hint} | ${REPAIRABLE.includes(code) ? 'yes' : ''} |`;
  const head = ['| code | severity | says | what to do | repair |', '| --- | --- | --- | --- | --- |'];
  const rubrics = Object.entries(RUBRIC_CHECKS) as [keyof typeof RUBRIC_CHECKS, string][];
  return [
    '# Checks',
    '',
    'Made from the catalogue in `core/src/checks` by `npm run docs`. Each is run on everything that is read; besides these,',
    'readers report what they meet on the way (`file-missing`, `points-disagree`, `remote-media`, `title-missing` …). What has a',
    'repair can be put right by `alforja mend`; what each does stands in `core/src/repair`, a file a finding.',
    '',
    ...head,
    ...CHECKS.map(row),
    '',
    '## Rubrics',
    '',
    'The last two are looked at in courses alone: a file does not say what its rubrics are attached to.',
    '',
    ...head,
    ...rubrics.map(([code, severity]) => row({ code, severity })),
    '',
  ].join('\n');
}

const START = '<!-- made by npm run docs: kinds -->';
const END = '<!-- end -->';

/** docs/formats.md with its table of kinds brought up to date. */
export function formatsDocument(now: string): string {
  const said = (kind: string, becomes: string | null): string =>
    becomes === null ? 'no' : becomes === kind ? 'yes' : `as ${becomes}`;
  const table = [
    '| kind | read from | QTI 2.1, 2.2, 3.0 | QTI 1.2 | Common Cartridge 1.1 to 1.3 |',
    '| --- | --- | --- | --- | --- |',
    ...INTERACTION_KINDS.map((kind) => {
      const own = kind === 'custom';
      const old = KIND_SUPPORT['qti1.2'][kind];
      const from = own ? 'kept whole' : old === kind ? 'QTI 1.2, 2.0 to 3.0' : 'QTI 2.0 to 3.0';
      return `| ${kind} | ${from} | ${own ? 'its own standard only' : 'yes'} | ${own ? 'its own standard only' : said(kind, old)} | ${said(kind, KIND_SUPPORT.cartridge[kind])} |`;
    }),
  ].join('\n');
  const [before = '', rest = ''] = now.split(START);
  return `${before}${START}\n\n${table}\n\n${END}${rest.split(END)[1] ?? '\n'}`;
}

if (process.argv[1]?.endsWith('docs.ts')) {
  await writeFile('docs/checks.md', checksDocument());
  await writeFile('docs/formats.md', formatsDocument(await readFile('docs/formats.md', 'utf8')));
}
