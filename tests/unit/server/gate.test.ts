import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as wait } from 'node:timers/promises';
import { expect } from 'chai';
import { behindGate, Gate, ownGate, passThrough } from '../../../src/lib/server/store/gate.ts';
import { runApart } from '../../support/apart.ts';

describe('a gate before the database', () => {
  afterEach(() => passThrough(null));

  it('lets threads be ended while they ask the database, or full, and the process lives on', async () => {
    const data = mkdtempSync(join(tmpdir(), 'alforja-gate-'));
    try {
      expect(await runApart('endedThreads.ts', data)).to.equal('12 work-too-large');
    } finally {
      rmSync(data, { recursive: true, force: true });
    }
  });

  it('is closed only once the calls under way have come back, with what they wait for', async () => {
    let answer = (_: string): void => undefined;
    const driver = behindGate(() => ({
      count: 0,
      ask: () => new Promise<string>((resolve) => (answer = resolve)),
      next(): number {
        return ++this.count;
      },
      fail(): never {
        throw new Error('no such table');
      },
    }));
    const gate = new Gate();
    passThrough(gate);
    expect(ownGate()).to.equal(gate);
    expect(() => driver.fail()).to.throw('no such table');
    const asked = driver.ask();
    let closed = false;
    const closing = gate.close().then(() => (closed = true));
    await wait(20);
    expect(closed).to.equal(false);
    // Another call of this thread would stand still now, if the one before did not need it.
    expect(driver.next()).to.equal(1);
    answer('forty');
    expect(await asked).to.equal('forty');
    await closing;
    expect(closed).to.equal(true);
  });

  it('gives transactions whose calls pass it, too', async () => {
    const gate = new Gate();
    passThrough(gate);
    let end = (): void => undefined;
    const client = behindGate(() => ({
      transaction: async () => ({ commit: () => new Promise<void>((resolve) => (end = resolve)) }),
    }));
    const transaction = await client.transaction();
    await gate.close();
    passThrough(new Gate());
    const committed = transaction.commit();
    let closed = false;
    const closing = ownGate()!
      .close()
      .then(() => (closed = true));
    await wait(20);
    expect(closed).to.equal(false);
    end();
    await Promise.all([committed, closing]);
  });
});
