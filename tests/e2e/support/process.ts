import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { until } from '../../../demo/fill.ts';

/** Starts the built application by itself on a data folder, without its demo, and waits until it answers. */
export async function startAlone(port: number, data: string): Promise<ChildProcess> {
  const child = spawn(process.execPath, ['build/index.js'], {
    stdio: 'ignore',
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: '127.0.0.1',
      PORT: String(port),
      BODY_SIZE_LIMIT: 'Infinity',
      ALFORJA_DATA: data,
    },
  });
  const answers = (): Promise<boolean> => fetch(`http://127.0.0.1:${port}/api/packages`).then((r) => r.ok, () => false); // prettier-ignore
  await until('starting', answers);
  return child;
}

/** Ends a process and waits until it is gone: till then it may still write. */
export async function stopped(child: ChildProcess, signal: NodeJS.Signals = 'SIGTERM'): Promise<void> {
  if (child.exitCode !== null || child.signalCode !== null) return;
  const gone = once(child, 'exit');
  child.kill(signal);
  await gone;
}
