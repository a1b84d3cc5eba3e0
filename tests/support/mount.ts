import { execFileSync } from 'node:child_process';

/** Small file systems in memory, for what happens when a disk is full or read only. */

/** Mounts one, where that is allowed. @returns whether it was */
export function mounted(folder: string, options: string): boolean {
  try {
    execFileSync('mount', ['-t', 'tmpfs', '-o', options, 'tmpfs', folder], { stdio: 'ignore' });
    return true;
  } catch {
    return false;
  }
}
export const unmount = (folder: string): unknown => execFileSync('umount', [folder], { stdio: 'ignore' });
