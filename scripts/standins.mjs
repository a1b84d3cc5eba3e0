import { spawn } from 'node:child_process';

/** Starts the simulated course systems, the mail catcher and the publisher's library as a process of their own, and waits until they answer. */
export async function startStandins({
  port = 4180,
  folder = null,
  pairs = 0,
  items = 300,
  quiet = false,
} = {}) {
  const child = spawn(
    process.execPath,
    ['--import', 'tsx', 'standins/main.ts', ...(folder ? [folder] : [])],
    {
      stdio: ['ignore', quiet ? 'ignore' : 'inherit', 'inherit'],
      env: {
        ...process.env,
        STANDIN_PORT: String(port),
        STANDIN_PAIRS: String(pairs),
        STANDIN_ITEMS: String(items),
      },
    },
  );
  const addresses = {
    quayside: `http://127.0.0.1:${port}`,
    foreshore: `http://127.0.0.1:${port + 1}`,
    mail: `http://127.0.0.1:${port + 2}`,
    smtp: `smtp://127.0.0.1:${port + 3}`,
    library: `http://127.0.0.1:${port + 4}`,
  };
  for (let tries = 0; tries < 1500; tries++) {
    if (child.exitCode !== null) throw new Error(`the stand-ins ended with status ${child.exitCode}`);
    const up = await Promise.all(
      [addresses.quayside, addresses.foreshore, addresses.mail, addresses.library].map((a) =>
        fetch(a).then(
          (r) => r.ok,
          () => false,
        ),
      ),
    );
    if (up.every(Boolean)) return { child, addresses };
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  child.kill();
  throw new Error('the stand-ins did not answer within five minutes');
}
