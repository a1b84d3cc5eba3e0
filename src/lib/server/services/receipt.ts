import { speak } from '@alforja/core';
import type { Receipt } from '../../shared/types.ts';
import type { TransferRow } from './transfers.ts';
import { parsedArrival, parsedSent } from './transfers.ts';
import { packageById } from './packages.ts';

/** Everything a receipt states; null until something has been sent or has arrived. */
export async function receiptOf(transfer: TransferRow): Promise<Receipt | null> {
  const sent = parsedSent(transfer);
  const arrival = parsedArrival(transfer);
  if (!sent && !arrival) return null;
  const source = (await packageById(transfer.packageId))!;
  const arrived = transfer.arrivedPackageId ? await packageById(transfer.arrivedPackageId) : null;
  const names = new Map(arrival?.left.map((r) => [r.id, r.name]));
  return {
    transfer: {
      id: transfer.id,
      title: transfer.title,
      started: iso(transfer.createdAt),
      format: transfer.target,
    },
    source: { name: source.name, bytes: source.bytes, sha256: source.sha256, brought: iso(source.broughtAt) },
    sent: sent && {
      name: sent.name,
      bytes: sent.bytes,
      sha256: sent.sha256,
      more: sent.more,
      at: iso(transfer.sentAt),
      items: sent.items,
      points: sent.points,
      losses: sent.findings.map(speak),
    },
    arrived: arrived && {
      name: arrived.name,
      bytes: arrived.bytes,
      sha256: arrived.sha256,
      brought: iso(arrived.broughtAt),
      compared: iso(transfer.comparedAt),
    },
    verdict: arrival?.comparison.verdict ?? null,
    counts: arrival?.comparison.counts ?? null,
    totals: arrival?.totals ?? null,
    altered: (arrival?.comparison.pairs ?? [])
      .filter((p) => p.state === 'altered')
      .map((p) => ({ ...p, name: names.get(p.source) ?? p.source })),
    missing: arrival?.comparison.missing ?? [],
    extra: arrival?.comparison.extra ?? [],
    containers: (arrival?.comparison.containers ?? []).filter((c) => c.state !== 'intact'),
    missingFiles: arrival?.comparison.missingFiles ?? [],
  };
}

const iso = (at: number | null): string | null => (at === null ? null : new Date(at).toISOString());
