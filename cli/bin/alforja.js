#!/usr/bin/env node
import { Worker } from 'node:worker_threads';

// What files hold is untrusted. A thread has a ceiling to its memory: where a process would be killed in the middle of
// a line, this one still says what happened.
const megabytes = Number(process.env.ALFORJA_THREAD_MB) || 4096;
const worker = new Worker(new URL('./thread.js', import.meta.url), {
  argv: process.argv.slice(2),
  resourceLimits: { maxOldGenerationSizeMb: megabytes },
});
worker.on('message', (status) => {
  process.exitCode = status;
});
worker.on('error', (error) => {
  const outOfMemory = error.code === 'ERR_WORKER_OUT_OF_MEMORY';
  const message = outOfMemory
    ? `It needs more than ${megabytes} MB of memory. Split the file, or allow more (ALFORJA_THREAD_MB).`
    : `This should not happen: ${error.message}`;
  const code = outOfMemory ? 'work-too-large' : 'internal';
  if (process.argv.includes('--json'))
    process.stdout.write(`${JSON.stringify({ error: { code, message, where: null } }, null, 2)}\n`);
  else process.stderr.write(`${message}\n`);
  process.exitCode = 2;
});
