import { install, installChromium, run, runBeside } from './setup.mjs';

// One command from a fresh clone to a full verdict: install what is missing, lint, check types, run all tests.
install();
installChromium();
// The tests are run as TypeScript, by settings that this writes.
run('npx', ['svelte-kit', 'sync']);
// The browser's tests and those of the house take longest, and wait for much of that time: two cores bear three lists.
// The former need no more than the build.
await runBeside(['build', 'test:e2e'], ['test:unit:house'], ['lint', 'check', 'test:unit:parts']);
