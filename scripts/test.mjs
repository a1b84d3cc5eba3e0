import { install, installChromium, run, runBeside } from './setup.mjs';

// One command from a fresh clone to a full verdict: install what is missing, lint, check types, run all tests.
install();
installChromium();
// The tests are run as TypeScript, by settings that this writes.
run('npx', ['svelte-kit', 'sync']);
// The browser's tests take longest, and need no more than the build; what they wait for leaves room for two lists beside.
await runBeside(['build', 'test:e2e'], ['test:unit:house'], ['test:unit:parts', 'lint', 'check']);
