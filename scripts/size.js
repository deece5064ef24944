/** npm run size — code lines, test lines and their ratio; blank and comment lines do not count. */
import { codeLines, isTest, sourceFiles } from "./files.js";

const files = sourceFiles();
const total = (chosen) => chosen.reduce((sum, file) => sum + codeLines(file), 0);
const [tests, code] = [total(files.filter(isTest)), total(files.filter((file) => !isTest(file)))];
console.log(`code lines ${code}, test lines ${tests}, ratio ${(tests / code).toFixed(3)}`);
