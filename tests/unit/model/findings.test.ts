import { expect } from 'chai';
import { fileReader, FINDINGS, readHolding, TARGETS, WORDS, writeHolding, type Finding } from '@alforja/core';
import { nodePlatform } from '@alforja/core/node';
import { demoFiles } from '../../../demo/packages.ts';

/** What each finding says beside its place. */
describe('the parameters of findings', () => {
  it('are those that the words speak of', () => {
    for (const [code, params] of Object.entries(FINDINGS)) {
      const { message, hint } = WORDS[code as Finding['code']];
      const spoken = [...`${message} ${hint}`.matchAll(/\{(\w+)\}/gu)].map(([, name]) => name!);
      expect(Object.keys(params), code).to.include.members(spoken);
    }
  });

  it('are there, all of them and nothing else, on whatever the demo is found to have or to lose', async () => {
    const found: Finding[] = [];
    for (const { name, bytes } of demoFiles()) {
      const holding = await readHolding(name, bytes, nodePlatform);
      found.push(...holding.findings);
      if (holding.items.length === 0) continue;
      const read = await fileReader(name, bytes, nodePlatform);
      for (const target of TARGETS) found.push(...writeHolding(holding, target, read, nodePlatform).findings);
    }
    for (const { code, params } of found) {
      const wanted: Readonly<Record<string, string>> = FINDINGS[code];
      expect(Object.keys(params).sort(), code).to.deep.equal(Object.keys(wanted).sort());
      for (const [name, given] of Object.entries(params))
        expect(typeof given, `${code} ${name}`).to.equal(wanted[name] === 'number' ? 'number' : 'string');
    }
    expect(new Set(found.map((f) => f.code)).size).to.be.at.least(20);
  });
});
