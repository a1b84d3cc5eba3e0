import { install, installChromium, run, runBeside } from './setup.mjs';

// One command from a fresh clone to a full verdict: install what is missing, lint, check types, run all tests.
install();
installChromium();
// The tests are run as TypeScript, by settings that this writes.
run('npx', ['svelte-kit', 'sync']);
// Each list takes one core, and about as long as the other; what the server's tests measure goes beside what is calm.
await runBeside(['lint', 'check', 'build', 'test:e2e'], ['test:unit:house', 'test:unit:parts']);
