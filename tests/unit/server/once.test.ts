import { randomUUID } from 'node:crypto';
import { setTimeout as wait } from 'node:timers/promises';
import { expect } from 'chai';
import fc from 'fast-check';
import { once } from '../../../src/lib/server/once.ts';
import { write } from '../../../src/lib/server/store/database.ts';
import { insertNotice, listNotices } from '../../../src/lib/server/store/notices.ts';
import { openStore } from '../../../src/lib/server/store/open.ts';
import { claimRequest, requestBy } from '../../../src/lib/server/store/requests.ts';

const notice = (text: string) => write((tx) => insertNotice(tx, { text, href: '/', tone: 'good' }));
const times = async (text: string): Promise<number> =>
  (await listNotices(10_000)).filter((n) => n.text === text).length;

/** A request that puts a notice in the tray, and answers with its text. */
const putting = (text: string) => async (): Promise<Response> => {
  await notice(text);
  return Response.json({ text }, { status: 201 });
};

describe('a request with a key', () => {
  before(openStore);

  it('is done once however often it comes, one after the other or at once, and answered alike', () =>
    fc.assert(
      fc.asyncProperty(
        fc.array(fc.integer({ min: 1, max: 3 }), { minLength: 1, maxLength: 3 }),
        async (together) => {
          const [key, text] = [randomUUID(), randomUUID()];
          for (const n of together) {
            const answers = await Promise.all(
              Array.from({ length: n }, () => once(key, 'POST /x', putting(text))),
            );
            for (const answer of answers) {
              expect(answer.status).to.equal(201);
              expect(await answer.json()).to.deep.equal({ text });
            }
          }
          expect(await times(text)).to.equal(1);
        },
      ),
      { numRuns: 15 },
    ));

  it('is tried anew where it changed nothing, and where its change was undone', async () => {
    const [key, text] = [randomUUID(), randomUUID()];
    const refused = await once(key, 'POST /x', () => Response.json({}, { status: 400 }));
    expect(refused.status).to.equal(400);
    const broken = await once(key, 'POST /x', async () => {
      await write(async (tx) => {
        await insertNotice(tx, { text, href: '/', tone: 'good' });
        throw new Error('half way');
      }).catch(() => undefined);
      return new Response(null, { status: 500 });
    });
    expect(broken.status).to.equal(500);
    expect(await times(text)).to.equal(0);
    expect((await once(key, 'POST /x', putting(text))).status).to.equal(201);
    expect(await times(text)).to.equal(1);
  });

  it('makes all of its changes, though only the first is kept with the key', async () => {
    const [key, text] = [randomUUID(), randomUUID()];
    const twoChanges = async (): Promise<Response> => {
      await notice(text);
      await notice(text);
      return new Response(null, { status: 204 });
    };
    for (const _ of [1, 2]) {
      const answer = await once(key, 'DELETE /x', twoChanges);
      expect([answer.status, await answer.text()]).to.deep.equal([204, '']);
    }
    expect(await times(text)).to.equal(2);
  });

  it('says that it was done where it was killed before its answer was kept', async () => {
    const key = randomUUID();
    await write((tx) => claimRequest(tx, key, 'POST /x'));
    const from = performance.now();
    const answer = await once(key, 'POST /x', () => expect.fail('it is not done again'));
    expect(answer.status).to.equal(409);
    expect(((await answer.json()) as { message: string }).message).to.include('Load the page again');
    expect(performance.now() - from).to.be.lessThan(15_000);
  });

  it('waits for the answer of one that is still being done', async () => {
    const [key, text] = [randomUUID(), randomUUID()];
    const slow = once(key, 'POST /x', async () => {
      const answer = await putting(text)();
      await wait(400);
      return answer;
    });
    for (let n = 0; !(await requestBy(key)); n++) await wait(n > 100 ? expect.fail('never begun') : 5);
    expect((await once(key, 'POST /x', putting(text))).status).to.equal(201);
    expect((await slow).status).to.equal(201);
    expect(await times(text)).to.equal(1);
  });

  it('is refused under a key of another request, and under no key at all', async () => {
    const [key, text] = [randomUUID(), randomUUID()];
    await once(key, 'POST /x', putting(text));
    expect((await once(key, 'POST /y', putting(text))).status).to.equal(422);
    for (const bad of ['', 'short', 'ä'.repeat(20), 'x'.repeat(65), `${'x'.repeat(20)}\n`])
      expect((await once(bad, 'POST /x', putting(text))).status, bad).to.equal(400);
    expect(await times(text)).to.equal(1);
  });

  it('does not keep an answer that is long', async () => {
    const key = randomUUID();
    const long = async (): Promise<Response> => {
      await notice(key);
      return new Response('x'.repeat(100_000));
    };
    expect((await (await once(key, 'POST /x', long)).text()).length).to.equal(100_000);
    const second = await once(key, 'POST /x', long);
    expect(second.status).to.equal(409);
    expect((await second.text()).length).to.be.lessThan(200);
    expect(await times(key)).to.equal(1);
  });
});
