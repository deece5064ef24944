/** Where the rows of functions are known from. */
export const doc = (section: string) => `MariaDB 10.11.19, ${section}`;
export const strings = doc("String Functions");
export const operatorsDoc = doc("Operators");
export const patterns = doc("Regular Expressions Functions");
export const numeric = doc("Numeric Functions");
export const dates = doc("Date & Time Functions");
export const control = doc("Control Flow Functions");
export const misc = doc("Information and Miscellaneous Functions");
export const oracle = doc("sql_mode, functions of compatible names");
