import { config } from 'chai';
import fc from 'fast-check';

// The same cases on every machine; FC_SEED tries others.
fc.configureGlobal({ seed: Number(process.env['FC_SEED'] ?? 20_261_124) });
config.truncateThreshold = 0;
