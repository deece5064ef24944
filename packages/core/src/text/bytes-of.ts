import type { AnswerOf } from "../traits/index.ts";
import { Bytes, Failure, type Value, bad, bytesOfHex, bytesOfLatin, utf8Of } from "../values/index.ts";
import { any, kept, operation } from "./operation.ts";

/** Two base-16 digits for each byte, blanks between them. */
function readHex(text: string): Bytes | Failure {
  const bytes = /^(?:[ \t\n\r]*[0-9a-f]{2})*[ \t\n\r]*$/i.test(text) ? bytesOfHex(text.replace(/\s/g, "")) : undefined;
  return bytes ? new Bytes(bytes) : bad(`"${text}" is not written in base 16`);
}

/** Text with `\\` for a backslash and `\ooo` for a byte. */
function readEscaped(text: string): Bytes | Failure {
  const parts = [...text.matchAll(/\\(?:(\\)|([0-3][0-7]{2}))|[^\\]+|\\/g)];
  if (parts.some(([part, backslash, octal]) => part.startsWith("\\") && !backslash && !octal))
    return bad(`"${text}" has a backslash that is neither \\\\ nor \\ooo`);
  return new Bytes(
    Uint8Array.from(parts.flatMap(([part, backslash, octal]) => (octal ? [parseInt(octal, 8)] : [...utf8Of(backslash ?? part)]))),
  );
}

/** ASCII for itself, other bytes as `\xNN`. */
function readAscii(text: string): Bytes | Failure {
  const bytes: number[] = [];
  for (const [part, hex] of text.matchAll(/\\x([0-9a-fA-F]{2})|[\s\S]/g)) {
    if (hex !== undefined) bytes.push(parseInt(hex, 16));
    else if (part.charCodeAt(0) < 128 && part !== "\\") bytes.push(part.charCodeAt(0));
    else return bad(`"${text}" is not a blob: bytes outside ASCII are written \\xNN`);
  }
  return new Bytes(Uint8Array.from(bytes));
}

/** How bytes are written in a text. */
const readBytesBy: Readonly<Record<AnswerOf<"bytesWritten">, (text: string) => Bytes | Failure>> = {
  "utf-8": (text) => new Bytes(utf8Of(text)),
  "a character each": (text) => new Bytes(bytesOfLatin(text)),
  "base 16": readHex,
  "escapes in base 8": readEscaped,
  "base 16, or escapes": (text) => (text.startsWith("\\x") ? readHex(text.slice(2)) : readEscaped(text)),
  "escapes in base 16": readAscii,
};

/** A text as the bytes that it stands for; other values stay. */
export const bytesOf = operation({
  id: "bytes-of",
  family: "convert",
  summary: "reads a text as bytes",
  slots: [kept(any("value"))],
  traits: ["bytesWritten"],
  prepare({ bytesWritten }) {
    const read = readBytesBy[bytesWritten];
    return (value: Value = null): Value => (typeof value === "string" ? read(value) : value);
  },
});
