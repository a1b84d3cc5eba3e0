import { EventEmitter } from 'node:events';
import type { JobView } from '../../shared/types.ts';

/** Job news for every open page of this process. */
const emitter = new EventEmitter();
emitter.setMaxListeners(0);

export const announce = (job: JobView): void => void emitter.emit('job', job);

/** Subscribes to job news; gives the way to stop. */
export function listen(hear: (job: JobView) => void): () => void {
  emitter.on('job', hear);
  return () => emitter.off('job', hear);
}
