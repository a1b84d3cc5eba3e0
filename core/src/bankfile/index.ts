export { writeBankFile } from './write.ts';
