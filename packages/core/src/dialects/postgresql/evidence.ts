/** Where the rows of functions are known from. */
export const doc = (section: string) => `PostgreSQL 15 documentation, ${section}`;
export const strings = doc("9.4");
export const patterns = doc("9.7");
export const numbers = doc("9.3");
