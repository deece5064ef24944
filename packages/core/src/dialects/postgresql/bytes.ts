import { type OperationId, type TraitsOf, kernelFor } from "../../text/index.ts";
import type { Answers } from "../../traits/index.ts";
import { Bytes, Failure, type Value, bad, base64Of, bytesOfBase64, hexOf, textOfUtf8, utf8Of } from "../../values/index.ts";
import type { Code } from "../dialect.ts";
import { digestText, digests } from "../shared/digests.ts";
import { strict } from "../shared/code.ts";

import { located, sliced, spanned, trimmed } from "./text-functions.ts";

/** Functions of binary strings (PostgreSQL documentation, 9.5). */

/** A text operation on bytes, each taken for the character of its number; `order` is that of the arguments in its slots. */
function onBytes<O extends OperationId>(id: O, answers: Answers<TraitsOf<O>>, order = [0, 1, 2, 3]): Code {
  const kernel = kernelFor(id, answers);
  return strict((...args: Value[]) => {
    const slots = order.map((at): Value | undefined => args[at]);
    const result = kernel(...slots.map((arg) => (arg instanceof Bytes ? charactersOf(arg) : arg)));
    return typeof result === "string" ? new Bytes(Uint8Array.from(result, (char) => char.charCodeAt(0))) : result;
  });
}

const charactersOf = ({ bytes }: Bytes): string => Array.from(bytes, (byte) => String.fromCharCode(byte)).join("");

/** Bytes as text in which those that are no ASCII characters are `\ooo`. */
const escaped = (bytes: Uint8Array): string =>
  Array.from(bytes, (byte) =>
    byte === 0 || byte > 127 ? `\\${byte.toString(8).padStart(3, "0")}` : byte === 92 ? "\\\\" : String.fromCharCode(byte),
  ).join("");

function encode({ bytes }: Bytes, format: string): Value {
  switch (format.toLowerCase()) {
    case "hex":
      return hexOf(bytes).toLowerCase();
    case "base64":
      return base64Of(bytes).replace(/.{76}(?=.)/g, "$&\n");
    case "escape":
      return escaped(bytes);
  }
  return bad(`"${format}" is none of hex, base64 and escape`);
}

const readHex = kernelFor("bytes-of", { bytesWritten: "base 16" });
const readEscaped = kernelFor("bytes-of", { bytesWritten: "escapes in base 8" });

function decode(text: string, format: string): Value {
  switch (format.toLowerCase()) {
    case "hex":
      return readHex(text);
    case "base64": {
      const bytes = bytesOfBase64(text.replace(/[ \t\n\r]/g, ""));
      return bytes ? new Bytes(bytes) : bad(`"${text}" is not written in base 64`);
    }
    case "escape":
      return readEscaped(text);
  }
  return bad(`"${format}" is none of hex, base64 and escape`);
}

/** How the encodings that are covered turn bytes into text and back; undefined where they cannot. */
const encodings: Readonly<
  Record<string, { read(bytes: Uint8Array): string | undefined; write(text: string): Uint8Array | undefined }>
> = {
  utf8: { read: textOfUtf8, write: utf8Of },
  latin1: {
    read: (bytes) => charactersOf(new Bytes(bytes)),
    write: (text) =>
      [...text].every((char) => char <= "\xff") ? Uint8Array.from(text, (char) => char.charCodeAt(0)) : undefined,
  },
};
const encodingNames: Readonly<Record<string, string>> = { unicode: "utf8", iso88591: "latin1" };

function encodingOf(name: string) {
  const plain = name.toLowerCase().replace(/[^a-z0-9]/g, "");
  return encodings[encodingNames[plain] ?? plain] ?? new Failure("not-covered", { what: `the encoding "${name}"` });
}

function readAs({ bytes }: Bytes, name: string): string | Failure {
  const encoding = encodingOf(name);
  if (encoding instanceof Failure) return encoding;
  const text = encoding.read(bytes);
  return text === undefined || text.includes("\0") ? bad(`the bytes are no text in ${name}`) : text;
}

function writeAs(text: string, name: string): Value {
  const encoding = encodingOf(name);
  if (encoding instanceof Failure) return encoding;
  const bytes = encoding.write(text);
  return bytes ? new Bytes(bytes) : bad(`"${text}" has characters that ${name} has not`);
}

const within = (at: number, size: number) => at >= 0 && at < size;
const outside = (at: number, size: number) => bad(`${at} is outside the bytes, which are counted from 0 to ${size - 1}`);

export const bytesCode: Readonly<Record<string, Code>> = {
  "bytes length": strict(({ bytes }: Bytes) => bytes.length),
  "bytes bits": strict(({ bytes }: Bytes) => bytes.length * 8),
  "bytes length in": strict((value: Bytes, encoding: string) => {
    const text = readAs(value, encoding);
    return text instanceof Failure ? text : [...text].length;
  }),
  "bytes joined": strict((a: Bytes, b: Bytes) => new Bytes(Uint8Array.from([...a.bytes, ...b.bytes]))),
  "bytes substring": onBytes("slice", sliced),
  "bytes overlay": onBytes("replace-span", spanned, [0, 2, 3, 1]),
  "bytes position": onBytes("locate", located),
  "bytes btrim": onBytes("trim", { ...trimmed, ends: "both" }),
  "bytes ltrim": onBytes("trim", { ...trimmed, ends: "start" }),
  "bytes rtrim": onBytes("trim", { ...trimmed, ends: "end" }),
  get_byte: strict(({ bytes }: Bytes, at: number) => (within(at, bytes.length) ? bytes[at] : outside(at, bytes.length))),
  set_byte: strict(({ bytes }: Bytes, at: number, value: number) =>
    within(at, bytes.length) ? new Bytes(bytes.with(at, value & 255)) : outside(at, bytes.length),
  ),
  get_bit: strict(({ bytes }: Bytes, at: number) =>
    within(at, bytes.length * 8) ? (bytes[at >> 3] >> (at & 7)) & 1 : outside(at, bytes.length * 8),
  ),
  set_bit: strict(({ bytes }: Bytes, at: number, value: number) => {
    if (!within(at, bytes.length * 8)) return outside(at, bytes.length * 8);
    if (value !== 0 && value !== 1) return bad("a bit is 0 or 1");
    const byte = bytes[at >> 3];
    return new Bytes(bytes.with(at >> 3, value ? byte | (1 << (at & 7)) : byte & ~(1 << (at & 7))));
  }),
  md5: strict((text: string) => digestText("md5", utf8Of(text))),
  "bytes md5": strict(({ bytes }: Bytes) => digestText("md5", bytes)),
  ...Object.fromEntries(
    (["sha224", "sha256", "sha384", "sha512"] as const).map((name) => [
      name,
      strict(({ bytes }: Bytes) => new Bytes(digests[name](bytes))),
    ]),
  ),
  bit_count: strict(({ bytes }: Bytes) => bytes.reduce((sum, byte) => sum + byte.toString(2).replaceAll("0", "").length, 0)),
  encode: strict(encode),
  decode: strict(decode),
  convert_from: strict(readAs),
  convert_to: strict(writeAs),
  convert: strict((value: Bytes, from: string, to: string) => {
    const text = readAs(value, from);
    return text instanceof Failure ? text : writeAs(text, to);
  }),
};
