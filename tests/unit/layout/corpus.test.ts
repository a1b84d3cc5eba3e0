import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { expect } from 'chai';
import { zipSync } from 'fflate';
import { readHolding, type Holding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { corpus } from '../../support/documents/corpus.ts';
import { judge, type Judged } from '../../support/documents/judge.ts';
import { LAYOUTS } from '../../support/documents/layouts.ts';
import { LANGUAGES } from '../../support/documents/truth.ts';

const FIXTURES = join(import.meta.dirname, '../../fixtures/documents');

function sum(all: readonly Judged[]): Omit<Judged, 'wrong' | 'amiss'> {
  const of = (key: 'items' | 'itemsRight' | 'keysRight' | 'pointsRight'): number =>
    all.reduce((n, j) => n + j[key], 0);
  return {
    items: of('items'),
    itemsRight: of('itemsRight'),
    keysRight: of('keysRight'),
    pointsRight: of('pointsRight'),
  };
}

describe('documents of fifteen layouts in five languages, read without a touch', () => {
  for (const format of ['text', 'rtf', 'html', 'docx'] as const)
    it(`${format}: 99 % of items, 99.5 % of keys, and no wrong key that is not marked`, async () => {
      const judged: Judged[] = [];
      for (const one of corpus().filter((c) => c.format === format)) {
        const bytes = await one.write(one.laid.lines);
        const { answers } = one.laid;
        const ending = one.name.split('.').at(-1)!;
        const holding: Holding = answers
          ? await readHolding(
              'chapter.zip',
              zipSync({
                [`chapter-5.${ending}`]: bytes,
                [`chapter-5-answers.${ending}`]: await one.write(answers),
              }),
              nodePlatform,
            )
          : await readHolding(one.name, bytes, nodePlatform);
        const found = judge(holding, one.laid.items, one.language.words);
        expect(found.wrong, one.name).to.deep.equal([]);
        judged.push(found);
      }
      const { items, itemsRight, keysRight, pointsRight } = sum(judged);
      expect(items).to.be.above(250);
      expect(itemsRight / items, judged.flatMap((j) => j.amiss).join('\n')).to.be.at.least(0.99);
      expect(keysRight / items).to.be.at.least(0.995);
      expect(pointsRight / items).to.be.at.least(0.99);
    });
});

describe('the same written by an office suite', () => {
  const files = readdirSync(FIXTURES);
  for (const format of ['odt', 'pdf', 'rtf', 'docx'])
    it(`${format}: 99 % of items, 99.5 % of keys, no wrong key that is not marked`, async () => {
      const judged: Judged[] = [];
      for (const file of files.filter((f) => f.startsWith(`${format}-`))) {
        const [, layout = '', code = ''] = new RegExp(`^${format}-(.*)-(\\w\\w)\\.\\w+$`, 'u').exec(file)!;
        const language = LANGUAGES.find((l) => l.words.language === code)!;
        const laid = LAYOUTS[layout]!(language);
        const found = judge(
          await readHolding(file, readFileSync(join(FIXTURES, file)), nodePlatform),
          laid.items,
          language.words,
        );
        expect(found.wrong, file).to.deep.equal([]);
        judged.push(found);
      }
      const { items, itemsRight, keysRight, pointsRight } = sum(judged);
      expect(judged.length).to.be.at.least(8);
      expect(itemsRight / items, judged.flatMap((j) => j.amiss).join('\n')).to.be.at.least(0.99);
      expect(keysRight / items, judged.flatMap((j) => j.amiss).join('\n')).to.be.at.least(0.995);
      expect(pointsRight / items).to.be.at.least(0.99);
    });
});
