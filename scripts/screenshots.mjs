import { build, install, installChromium, run } from './setup.mjs';

// Pictures of the main views from the demo data, into docs/screenshots/.
install();
installChromium();
build();
run(process.execPath, ['--import', 'tsx', 'scripts/screenshots.ts']);
