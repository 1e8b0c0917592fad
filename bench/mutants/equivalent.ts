/** Mutants that no test can notice, since nothing a caller can see changes; each with its reason. */
export const EQUIVALENT: readonly { file: string; original: string; changed: string; why: string }[] = [];
