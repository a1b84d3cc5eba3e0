import type { MessagePort } from 'node:worker_threads';
import { Refusal } from '@alforja/core';
import type { Finding, Target } from '@alforja/core';
import type { Tick } from '../../shared/types.ts';
import {
  compareTask,
  forecastTask,
  readTask,
  sendTask,
  type CompareResult,
  type FileRefInput,
  type ReadResult,
  type SendResult,
} from './tasks.ts';

import {
  arrivalTask,
  attachTask,
  planTask,
  shipTask,
  type ArrivalInput,
  type ArrivalResult,
  type AttachResult,
  type PlanInput,
  type PlanResult,
  type ShipInput,
  type ShipResult,
} from './courseTasks.ts';

/** The typed protocol between the runner and its worker threads. */
export type Order =
  | { readonly kind: 'read'; readonly file: FileRefInput }
  | {
      readonly kind: 'forecast';
      readonly file: FileRefInput;
      readonly ticks: readonly Tick[];
      readonly target: Target;
    }
  | {
      readonly kind: 'send';
      readonly file: FileRefInput;
      readonly ticks: readonly Tick[];
      readonly target: Target;
    }
  | { readonly kind: 'plan'; readonly asked: PlanInput }
  | { readonly kind: 'ship'; readonly asked: ShipInput }
  | { readonly kind: 'attach'; readonly asked: ArrivalInput }
  | { readonly kind: 'arrival'; readonly asked: ArrivalInput }
  | {
      readonly kind: 'compare';
      readonly source: FileRefInput;
      readonly ticks: readonly Tick[];
      readonly arrived: FileRefInput;
      readonly sentSha256: string;
      readonly arrivedSha256: string;
    };

export type Outcome =
  | { readonly ok: true; readonly kind: 'read'; readonly result: ReadResult }
  | { readonly ok: true; readonly kind: 'forecast'; readonly result: readonly Finding[] }
  | { readonly ok: true; readonly kind: 'send'; readonly result: SendResult }
  | { readonly ok: true; readonly kind: 'compare'; readonly result: CompareResult }
  | { readonly ok: true; readonly kind: 'plan'; readonly result: PlanResult }
  | { readonly ok: true; readonly kind: 'ship'; readonly result: ShipResult }
  | { readonly ok: true; readonly kind: 'attach'; readonly result: AttachResult }
  | { readonly ok: true; readonly kind: 'arrival'; readonly result: ArrivalResult }
  | { readonly ok: false; readonly failure: Finding };

export interface ProgressMessage {
  readonly step: string;
  readonly done: number;
  readonly total: number;
}

/** Runs one order; a file that cannot be read is an outcome, not an error. */
export default async function run({ order, port }: { order: Order; port: MessagePort }): Promise<Outcome> {
  const progress = (step: string, done: number, total: number): void =>
    port.postMessage({ step, done, total } satisfies ProgressMessage);
  try {
    switch (order.kind) {
      case 'read':
        return { ok: true, kind: 'read', result: await readTask(order.file, progress) };
      case 'forecast':
        return {
          ok: true,
          kind: 'forecast',
          result: await forecastTask(order.file, order.ticks, order.target, progress),
        };
      case 'send':
        return {
          ok: true,
          kind: 'send',
          result: await sendTask(order.file, order.ticks, order.target, progress),
        };
      case 'plan':
        return { ok: true, kind: 'plan', result: await planTask(order.asked, progress) };
      case 'ship':
        return { ok: true, kind: 'ship', result: await shipTask(order.asked, progress) };
      case 'attach':
        return { ok: true, kind: 'attach', result: await attachTask(order.asked, progress) };
      case 'arrival':
        return { ok: true, kind: 'arrival', result: await arrivalTask(order.asked, progress) };
      case 'compare':
        return {
          ok: true,
          kind: 'compare',
          result: await compareTask(order.source, order.ticks, order.arrived, progress),
        };
    }
  } catch (error) {
    if (error instanceof Refusal) return { ok: false, failure: error.finding };
    throw error;
  } finally {
    port.close();
  }
}
