/** Banks as documents and tables that are read back whole. */
export const BANK_TARGETS = ['docx', 'text', 'csv', 'xlsx'] as const;
export type BankTarget = (typeof BANK_TARGETS)[number];
