/** Where the rows of functions are known from. */
export const doc = (section: string) => `DuckDB 1.5.6, ${section}`;
export const strings = doc("Text Functions");
export const patterns = doc("Pattern Matching");
export const regexes = doc("Regular Expressions");
export const lists = doc("List Functions");
export const numbers = doc("Numeric Functions");
export const operatorsDoc = doc("Comparison Operators");
export const dates = doc("Date Functions");
