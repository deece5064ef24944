import { tick } from "./deadline.ts";

/**
 * A binary string: bytes (0 to 255) that are not read as text.
 *
 * @example
 * postgresql().plain(new Bytes(Uint8Array.of(0, 255))); // "\\x00ff"
 */
export class Bytes {
  constructor(readonly bytes: Uint8Array) {}
}

/** The UTF-8 form of a text; half of a surrogate pair becomes U+FFFD. */
export function utf8Of(text: string): Uint8Array {
  const result: number[] = [];
  for (const char of text) {
    let code = char.codePointAt(0)!;
    if (code >= 0xd800 && code <= 0xdfff) code = 0xfffd;
    if (code < 0x80) result.push(code);
    else if (code < 0x800) result.push(0xc0 | (code >> 6), 0x80 | (code & 63));
    else if (code < 0x10000) result.push(0xe0 | (code >> 12), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
    else result.push(0xf0 | (code >> 18), 0x80 | ((code >> 12) & 63), 0x80 | ((code >> 6) & 63), 0x80 | (code & 63));
  }
  return Uint8Array.from(result);
}

/** The code point that starts at a byte, and how many bytes belong to it; −1 for bytes that are no part of a character. */
function codePointAt(bytes: Uint8Array, at: number): { code: number; size: number } {
  const first = bytes[at];
  if (first < 0x80) return { code: first, size: 1 };
  const more = first >= 0xf0 && first < 0xf5 ? 3 : first >= 0xe0 && first < 0xf0 ? 2 : first >= 0xc2 && first < 0xe0 ? 1 : 0;
  let code = first & (0x3f >> more);
  for (let i = 1; i <= more; i++) {
    const byte = bytes[at + i];
    const low = i > 1 ? 0x80 : first === 0xe0 ? 0xa0 : first === 0xf0 ? 0x90 : 0x80;
    const high = i > 1 ? 0xbf : first === 0xed ? 0x9f : first === 0xf4 ? 0x8f : 0xbf;
    if (!(byte >= low && byte <= high)) return { code: -1, size: i };
    code = (code << 6) | (byte & 63);
  }
  return more === 0 ? { code: -1, size: 1 } : { code, size: more + 1 };
}

/** The text that bytes are the UTF-8 form of; undefined where they are none. */
export function textOfUtf8(bytes: Uint8Array): string | undefined {
  let result = "";
  for (let at = 0; at < bytes.length;) {
    const { code, size } = codePointAt(bytes, at);
    if (code < 0) return undefined;
    result += String.fromCodePoint(code);
    at += size;
  }
  return result;
}

/** The text that bytes are the UTF-8 form of, U+FFFD where they are none (Unicode 15, 3.9, the maximal subpart). */
export function textOfBytes(bytes: Uint8Array): string {
  let result = "";
  for (let at = 0; at < bytes.length;) {
    const { code, size } = codePointAt(bytes, at);
    result += String.fromCodePoint(code < 0 ? 0xfffd : code);
    at += size;
  }
  return result;
}

/** The two upper-case base-16 digits of each byte. */
const hexPairs = Array.from({ length: 256 }, (_, byte) => byte.toString(16).toUpperCase().padStart(2, "0"));

/** Two upper-case base-16 digits for each byte. */
export function hexOf(bytes: Uint8Array): string {
  let result = "";
  for (let at = 0; at < bytes.length; at += 8192) {
    const some = bytes.subarray(at, at + 8192);
    tick(some.length);
    result += Array.from(some, (byte) => hexPairs[byte]).join("");
  }
  return result;
}

/** The bytes that pairs of base-16 digits stand for; undefined where they are none. */
export function bytesOfHex(digits: string): Uint8Array | undefined {
  if (!/^(?:[0-9a-fA-F]{2})*$/.test(digits)) return undefined;
  return Uint8Array.from(digits.match(/../g) ?? [], (pair) => parseInt(pair, 16));
}

const base64Digits = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";

/** Bytes in base 64 (RFC 4648, section 4), filled up with `=`. */
export function base64Of(bytes: Uint8Array): string {
  let result = "";
  for (let at = 0; at < bytes.length; at += 3) {
    const three = (bytes[at] << 16) | ((bytes[at + 1] ?? 0) << 8) | (bytes[at + 2] ?? 0);
    const four = [18, 12, 6, 0].map((shift) => base64Digits[(three >> shift) & 63]);
    const missing = Math.max(0, at + 3 - bytes.length);
    result += four.slice(0, 4 - missing).join("") + "=".repeat(missing);
  }
  return result;
}

/** The bytes that digits of base 64, filled up with `=`, stand for; undefined where they are none. */
export function bytesOfBase64(digits: string): Uint8Array | undefined {
  if (!/^(?:[A-Za-z0-9+/]{4})*(?:[A-Za-z0-9+/]{2}==|[A-Za-z0-9+/]{3}=)?$/.test(digits)) return undefined;
  const bytes: number[] = [];
  for (let at = 0; at < digits.length; at += 4) {
    const four = [...digits.slice(at, at + 4)].map((char) => (char === "=" ? 0 : base64Digits.indexOf(char)));
    const three = (four[0] << 18) | (four[1] << 12) | (four[2] << 6) | four[3];
    const count = digits[at + 2] === "=" ? 1 : digits[at + 3] === "=" ? 2 : 3;
    bytes.push(...[16, 8, 0].slice(0, count).map((shift) => (three >> shift) & 255));
  }
  return Uint8Array.from(bytes);
}

/** A text with one character, U+0000 to U+00FF, for each byte, so that what counts characters counts bytes. */
export function latinOfBytes(bytes: Uint8Array): string {
  let text = "";
  for (let i = 0; i < bytes.length; i += 8192) text += String.fromCharCode(...bytes.subarray(i, i + 8192));
  return text;
}

/** The bytes of such a text. */
export const bytesOfLatin = (text: string): Uint8Array => Uint8Array.from(text, (char) => char.charCodeAt(0));
