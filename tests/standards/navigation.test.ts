import { expect } from 'chai';
import { inspectReport } from '@alforja/core';
import { demoFiles } from '../../demo/packages.ts';
import { read } from '../support/read.ts';

/** Facts of the trade in the demo's own items, worked out here from their source. */
describe('the demo says what is right', () => {
  const items = async (name: string) =>
    inspectReport(await read(demoFiles().find((f) => f.name === name)!.bytes, name)).items;

  it('D = S x T in every distance exercise (common practice)', async () => {
    let seen = 0;
    for (const item of await items('distance-drill.zip')) {
      const [, knots, minutes] = /At ([\d.]+) knots for (\d+) minutes/u.exec(item.stem)!.map(Number);
      expect(Number(item.key[0])).to.be.closeTo((knots! * minutes!) / 60, 0.005);
      seen += 1;
    }
    expect(seen).to.equal(15);
  });

  it('the rule of twelfths: 1 + 2 twelfths of 4.8 m on 2.1 m is 3.3 m (common practice)', async () => {
    const tide = (await items('pilotage-week5.imscc')).find((i) => i.id === 'tide-02')!;
    expect(Number(tide.key[0])).to.be.closeTo(2.1 + (3 / 12) * 4.8, 1e-9);
  });

  it('a nautical mile is 1852 m exactly (International Extraordinary Hydrographic Conference, 1929)', async () => {
    const mile = (await items('pilotage-week5.imscc')).find((i) => i.stem.includes('1852'))!;
    expect(mile.key).to.deep.equal(['True']);
  });

  it('variation west is taken off the compass course: 214 - 6 = 208 (common practice: west is best)', async () => {
    const course = (await items('pilotage-week5.imscc')).find((i) => i.stem.includes('214'))!;
    expect(course.key).to.deep.equal(['208']);
  });
});
