/** Tells how far some work is: what is done, and how much of how much; 0 of 0 where that is not known. */
export type Progress = (step: string, done: number, total: number) => void;
