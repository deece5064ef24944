/** Texts for a slot that wants something short. */
export const slotTexts: Readonly<Record<string, readonly string[]>> = {
  flags: ["i", "", "g", "c", "s"],
  delimiter: [",", " ", "#", "X", "", "a", ", ", "x", "😀", "\u00a0"],
  separator: [",", " ", "", "--"],
  new: ["-", "", "\\1", "[\\0]", "é", "$1", "\\&", "😀"],
  needle: ["a", "A", "", "lnus", ",", "é", "x", "😀", "b", " ", "e\u0301"],
  old: ["a", "A", "", "nus", ",", "é", "😀"],
  characters: [" ", "a", "xA", "", " ,", "é", "😀🌿", "\u00a0\t", "abcdefghijklmnop"],
  fill: ["*", " ", "", "ab", "é", "😀"],
  form: ["nfc", "nfd"],
};

/** Small integers, and those at the edges of the types. */
export const integers: readonly string[] =
  "0 0 1 1 1 2 2 2 3 3 4 5 6 -1 -1 -2 7 20 -9 127 -128 128 255 256 32767 -32768 32768 65536 2147483647 -2147483647 2147483648 -2147483649 4294967296 9007199254740993 9223372036854775807 -9223372036854775807 9223372036854775808 18446744073709551615 18446744073709551616".split(
    " ",
  );
export const decimals: readonly string[] = ["1.5", "2.50", "-0.5", "0.0", "7", "1234.567", "-2.5", "0.05", "99999.99999", "0.1"];
