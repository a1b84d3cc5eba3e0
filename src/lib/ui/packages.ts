import type { PackageListing } from '$lib/shared/types';

/** Whether something found in a package waits to be decided. */
export const hasFindings = ({ summary, settledAt }: PackageListing): boolean =>
  summary !== null && settledAt === null && summary.errors + summary.warnings > 0;
