import type { Edit } from '@alforja/core';
import type { EditWay, StepView } from '$lib/shared/edits';
import { ask } from '../ask';
import { live } from '../live.svelte';

/** Putting right a package from its reading room: what is sent, and what went wrong with it. */
export class Changes {
  readonly packageId: string;
  busy = $state(false);
  trouble = $state('');
  /** Grows when a change is sent, and when it is answered: what was asked before may not know of it. */
  told = 0;

  constructor(packageId: string) {
    this.packageId = packageId;
  }

  /** Whether the package is being read with what was changed. */
  get reading(): boolean {
    return live.active.some((j) => j.kind === 'read' && j.subject === this.packageId);
  }

  /** @returns whether it was taken */
  make(way: EditWay, edits: readonly Edit[]): Promise<boolean> {
    return this.#ask('edits', { way, edits });
  }

  undo = (): Promise<boolean> => this.#ask('edits', { do: 'undo' });
  redo = (): Promise<boolean> => this.#ask('edits', { do: 'redo' });

  /** Makes the repairs of findings. @param at their places in the reading */
  repair(reading: string, at: readonly number[]): Promise<boolean> {
    return this.#ask('repairs', { reading, at });
  }

  /** Takes every change of one thing back, or of one part of it. */
  asItCame(node: string, part?: string): Promise<boolean> {
    return this.#ask('edits', { do: 'as-it-came', node, ...(part === undefined ? {} : { part }) });
  }

  takeBack(step: string, takenBack: boolean): Promise<boolean> {
    return this.#ask(`edits/${step}`, { takenBack }, 'PUT');
  }

  async history(): Promise<StepView[]> {
    const response = await fetch(`/api/packages/${this.packageId}/edits`).catch(() => null);
    return response?.ok ? ((await response.json()) as StepView[]) : [];
  }

  async #ask(path: string, body: unknown, method: 'POST' | 'PUT' = 'POST'): Promise<boolean> {
    this.busy = true;
    this.trouble = '';
    this.told += 1;
    try {
      await ask(`/api/packages/${this.packageId}/${path}`, body, {
        method,
        otherwise: 'The server did not answer. Nothing was changed; try again.',
      });
      await live.reload();
      return true;
    } catch (error) {
      this.trouble = (error as Error).message;
      return false;
    } finally {
      this.busy = false;
      this.told += 1;
    }
  }
}
