/** Compiles the catalogue of words; throws where languages do not agree. */
export function compileWords(): void;
