import { expect } from 'chai';
import { findEverything } from '../../../src/lib/server/library/finding.ts';
import { broughtPackages } from '../../../src/lib/server/library/packages.ts';
import { bringBack, emptyTrash, throwAway } from '../../../src/lib/server/library/trash.ts';
import { packageById } from '../../../src/lib/server/store/packages.ts';
import { listThrown } from '../../../src/lib/server/store/trash.ts';
import { transferById } from '../../../src/lib/server/store/transfers.ts';
import { transferLines } from '../../../src/lib/server/transfer/lines.ts';
import { whatWaits } from '../../../src/lib/server/transfer/desk.ts';
import { startTransfer } from '../../../src/lib/server/transfer/start.ts';
import { bankXml, PLAIN } from '../../../demo/qti12.ts';
import { LIGHTS_BANK } from '../../../demo/items.ts';
import { brought, closeServer, openServer } from '../../support/server.ts';

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
    await emptyTrash(Date.now() + 29 * DAY);
    expect(await packageById(held.id)).not.to.equal(null);
    await emptyTrash(Date.now() + 31 * DAY);
    expect(await packageById(held.id)).to.equal(null);
  });

  it('stays where a transfer rests on it; a draft that is thrown away waits no longer', async () => {
    const held = await brought('trashed-four.xml', bank('Trashfour'));
    const id = (await startTransfer({ packageId: held.id }, null))!;
    const drafts = async (): Promise<number> =>
      (await whatWaits()).filter((w) => w.sort === 'draft' && w.href.includes(id)).length;
    expect(await drafts()).to.equal(1);
    await throwAway('package', held.id);
    await emptyTrash(Date.now() + 31 * DAY);
    expect(await packageById(held.id)).not.to.equal(null);
    await throwAway('transfer', id);
    expect([await drafts(), (await transferLines()).some((l) => l.id === id)]).to.deep.equal([0, false]);
    await emptyTrash(Date.now() + 31 * DAY);
    expect(await transferById(id)).to.equal(null);
    await emptyTrash(Date.now() + 31 * DAY);
    expect(await packageById(held.id)).to.equal(null);
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
