import { existsSync } from 'node:fs';
import { utimes } from 'node:fs/promises';
import { expect } from 'chai';
import { findEverything } from '../../../src/lib/server/library/finding.ts';
import { broughtPackages } from '../../../src/lib/server/library/packages.ts';
import { clean } from '../../../src/lib/server/keeping/clean.ts';
import { bringBack, throwAway } from '../../../src/lib/server/library/trash.ts';
import { storeBytes, storedPath } from '../../../src/lib/server/store/files.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { listThrown } from '../../../src/lib/server/store/trash.ts';
import { transferById } from '../../../src/lib/server/store/transfers.ts';
import { transferLines } from '../../../src/lib/server/transfer/lines.ts';
import { whatWaits } from '../../../src/lib/server/transfer/desk.ts';
import { beginSending } from '../../../src/lib/server/transfer/begin.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import { brought, closeServer, openServer, settled } from '../../support/server.ts';

const bank = (name: string): string => bankXml(name, LIGHTS_BANK.slice(0, 2), PLAIN, name);
const DAY = 86_400_000;

describe('what is thrown away', () => {
  before(openServer);
  after(closeServer);

  it('is out of every list and search, and comes back as it was', async () => {
    const held = await brought('trashed-one.xml', bank('Trashone'));
    const listed = async (): Promise<boolean> => (await broughtPackages()).some((p) => p.id === held.id);
    const hits = async (): Promise<number> => (await findEverything('trashone', 5)).length;
    expect([await listed(), (await hits()) > 0]).to.deep.equal([true, true]);
    expect(await throwAway('package', held.id)).to.equal('done');
    expect([await listed(), await hits()]).to.deep.equal([false, 0]);
    expect((await listThrown())[0]).to.include({ kind: 'package', id: held.id, name: 'trashed-one.xml' });
    expect(await bringBack('package', held.id)).to.equal('done');
    expect(await listed()).to.equal(true);
    expect((await packageById(held.id))!.summary?.items).to.equal(2);
    expect(await throwAway('package', 'nobody')).to.equal('unknown');
  });

  it('comes back when the same file is brought in again', async () => {
    const held = await brought('trashed-two.xml', bank('Trashtwo'));
    await throwAway('package', held.id);
    expect((await brought('trashed-two.xml', bank('Trashtwo'))).id).to.equal(held.id);
    expect((await broughtPackages()).some((p) => p.id === held.id)).to.equal(true);
  });

  it('is gone for good after thirty days, and not a day before', async () => {
    const held = await brought('trashed-three.xml', bank('Trashthree'));
    await throwAway('package', held.id);
    await clean({ now: Date.now() + 29 * DAY });
    expect(await packageById(held.id)).not.to.equal(null);
    await clean({ now: Date.now() + 31 * DAY });
    expect(await packageById(held.id)).to.equal(null);
  });

  it('stays where a transfer rests on it; a draft that is thrown away waits no longer', async () => {
    const held = await brought('trashed-four.xml', bank('Trashfour'));
    const id = (await startTransfer({ packageId: held.id }, null))!;
    const drafts = async (): Promise<number> =>
      (await whatWaits()).filter((w) => w.sort === 'draft' && w.href.includes(id)).length;
    expect(await drafts()).to.equal(1);
    await throwAway('package', held.id);
    await clean({ now: Date.now() + 31 * DAY });
    expect(await packageById(held.id)).not.to.equal(null);
    await throwAway('transfer', id);
    expect([await drafts(), (await transferLines()).some((l) => l.id === id)]).to.deep.equal([0, false]);
    await clean({ now: Date.now() + 31 * DAY });
    expect(await transferById(id)).to.equal(null);
    await clean({ now: Date.now() + 31 * DAY });
    expect(await packageById(held.id)).to.equal(null);
  });
});

describe('the bytes of what was thrown away', () => {
  before(openServer);
  after(closeServer);

  const HOUR = 3_600_000;
  const aged = (sha256: string): Promise<void> => {
    const then = new Date(Date.now() - 2 * HOUR);
    return utimes(storedPath(sha256), then, then);
  };
  const there = (sha256: string): boolean => existsSync(storedPath(sha256));
  const bytes = (text: string): Promise<string> =>
    storeBytes(new TextEncoder().encode(text)).then((stored) => stored.sha256);

  it('go with it after thirty days, and not before', async () => {
    const { id, sha256 } = await brought('bytes-one.xml', bank('Bytesone'));
    await aged(sha256);
    await throwAway('package', id);
    await clean({ now: Date.now() + 29 * DAY });
    expect(there(sha256)).to.equal(true);
    await clean({ now: Date.now() + 31 * DAY });
    expect(there(sha256)).to.equal(false);
  });

  it('go where nothing refers to them, once they are no longer on their way', async () => {
    const [stray, young] = [await bytes('stray'), await bytes('young')];
    await aged(stray);
    await clean();
    expect([there(stray), there(young)]).to.deep.equal([false, true]);
    await aged(young);
    // The same bytes come once more: they are on their way again.
    await bytes('young');
    await clean();
    expect(there(young)).to.equal(true);
  });

  it('stay where a transfer wrote them', async () => {
    const held = await brought('bytes-two.xml', bank('Bytestwo'));
    const id = (await startTransfer({ packageId: held.id }, null))!;
    await beginSending((await transferById(id))!);
    await settled();
    const [part] = (await transferById(id))!.sent!.parts;
    for (const sum of [part!.sha256, held.sha256]) await aged(sum);
    await clean({ now: Date.now() + 31 * DAY });
    expect([there(part!.sha256), there(held.sha256)]).to.deep.equal([true, true]);
  });
});

describe('a transfer that is begun twice', () => {
  before(openServer);
  after(closeServer);

  it('is one draft, even when both are asked for at once; another choice is another', async () => {
    const held = await brought('twice.xml', bank('Twice'));
    const [a, b] = await Promise.all([
      startTransfer({ packageId: held.id }, null),
      startTransfer({ packageId: held.id }, null),
    ]);
    expect(a).to.equal(b);
    const [some] = (await transferLines()).filter((l) => l.id === a);
    expect(some).to.include({ state: 'draft', kind: 'transfer' });
    const other = await startTransfer({ packageId: held.id }, null, { ticks: [] });
    expect(other).not.to.equal(a);
    await throwAway('transfer', a!);
    expect(await startTransfer({ packageId: held.id }, null)).not.to.equal(a);
  });
});
