import { spawn } from 'node:child_process';

/**
 * Starts the built server and waits until it answers.
 * @param inside hosts inside this network that it may ask: the stand-ins, in the demo
 */
export async function startServer({ port, data, quiet = false, smtp = null, inside = null }) {
  const child = spawn(process.execPath, ['build/index.js'], {
    stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
    env: {
      ...process.env,
      NODE_ENV: 'production',
      HOST: '127.0.0.1',
      PORT: String(port),
      BODY_SIZE_LIMIT: 'Infinity',
      // Longer than whoever asks keeps a connection that is idle: it is not closed in the middle of the next request.
      KEEP_ALIVE_TIMEOUT: '65',
      // With a heap for each thread the C library would keep what others could use.
      MALLOC_ARENA_MAX: '2',
      ALFORJA_DATA: data,
      ...(smtp ? { ALFORJA_SMTP: smtp } : {}),
      ...(inside ? { ALFORJA_INSIDE: inside } : {}),
    },
  });
  const base = `http://127.0.0.1:${port}`;
  for (let tries = 0; tries < 6000; tries++) {
    if (child.exitCode !== null) throw new Error(`the server ended with status ${child.exitCode}`);
    const up = await fetch(`${base}/api/packages`).then(
      (r) => r.ok,
      () => false,
    );
    if (up) return { child, base };
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
  child.kill();
  throw new Error('the server did not answer within five minutes');
}
