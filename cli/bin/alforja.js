#!/usr/bin/env node
import { Worker } from 'node:worker_threads';

// What files hold is untrusted. A thread has a ceiling to its memory: where a process would be killed in the middle of
// a line, this one still says what happened.
const megabytes = Number(process.env.ALFORJA_THREAD_MB) || 4096;
// Backing a folder up takes as long as it takes; reading a file of somebody's does not.
const KEEPING = new Set(['backup', 'restore', 'clean']);
const seconds = KEEPING.has(process.argv[2]) ? 0 : Number(process.env.ALFORJA_SECONDS) || 1200;
const worker = new Worker(new URL('./thread.js', import.meta.url), {
  argv: process.argv.slice(2),
  resourceLimits: { maxOldGenerationSizeMb: megabytes },
});
const refuse = (code, message) => {
  if (process.argv.includes('--json'))
    process.stdout.write(`${JSON.stringify({ error: { code, message, where: null } }, null, 2)}\n`);
  else process.stderr.write(`${message}\n`);
  process.exitCode = 2;
};
const deadline =
  seconds > 0 &&
  setTimeout(() => {
    refuse(
      'work-too-long',
      `It takes more than ${seconds} seconds. Split the file, or allow more (ALFORJA_SECONDS).`,
    );
    void worker.terminate();
  }, seconds * 1000);
worker.on('message', (status) => {
  process.exitCode = status;
});
worker.on('error', (error) => {
  if (error.code === 'ERR_WORKER_OUT_OF_MEMORY')
    refuse(
      'work-too-large',
      `It needs more than ${megabytes} MB of memory. Split the file, or allow more (ALFORJA_THREAD_MB).`,
    );
  else refuse('internal', `This should not happen: ${error.message}`);
});
worker.on('exit', () => clearTimeout(deadline));
