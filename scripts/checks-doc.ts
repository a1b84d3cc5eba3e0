import { writeFile } from 'node:fs/promises';
import { CHECKS, WORDS } from '@alforja/core';

/** docs/checks.md, from the catalogue: node --import tsx scripts/checks-doc.ts */
export function checksDocument(): string {
  const rows = CHECKS.map(
    ({ code, severity }) => `| \`${code}\` | ${severity} | ${WORDS[code].message} | ${WORDS[code].hint} |`,
  );
  return [
    '# Checks',
    '',
    'Made from the catalogue in `core/src/checks` by `npm run docs`. Each is run on everything that is read; besides these,',
    'readers report what they meet on the way (`file-missing`, `points-disagree`, `remote-media`, `title-missing` …).',
    '',
    '| code | severity | says | what to do |',
    '| --- | --- | --- | --- |',
    ...rows,
    '',
  ].join('\n');
}

if (process.argv[1]?.endsWith('checks-doc.ts')) await writeFile('docs/checks.md', checksDocument());
