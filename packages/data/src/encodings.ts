import { DataError } from "./table.ts";

/** Encodings that a message names; every name that the host knows for one is taken. */
export const encodingNames = ["utf-8", "utf-16le", "utf-16be", "utf-32le", "utf-32be", "windows-1252", "iso-8859-15"] as const;

/** Windows-1252 from 0x80 to 0x9F: some hosts decode this range as ISO 8859-1. */
const upperPage = "€\x81‚ƒ„…†‡ˆ‰Š‹Œ\x8dŽ\x8f\x90‘’“”•–—˜™š›œ\x9džŸ";

/** The encoding that the first bytes are of: by their mark, or by where they are zero. */
function encodingOf(bytes: Uint8Array): string {
  const [a, b, c, d] = bytes;
  if (a === 0xff && b === 0xfe && c === 0 && d === 0) return "utf-32le";
  if (a === 0 && b === 0 && c === 0xfe && d === 0xff) return "utf-32be";
  if (a === 0xff && b === 0xfe) return "utf-16le";
  if (a === 0xfe && b === 0xff) return "utf-16be";
  if (bytes.length < 4) return "utf-8";
  if (a === 0 && b === 0 && c === 0 && d !== 0) return "utf-32be";
  if (a !== 0 && b === 0 && c === 0 && d === 0) return "utf-32le";
  if (a === 0 && b !== 0 && c === 0) return "utf-16be";
  return a !== 0 && b === 0 && c !== 0 && d === 0 ? "utf-16le" : "utf-8";
}

/** The host's name of an encoding. @throws DataError where it knows none of that name */
function usualName(name: string): string {
  const lower = name.trim().toLowerCase();
  if (/^utf-?32(?:le|be)$/.test(lower)) return lower.replace("utf32", "utf-32");
  try {
    return new TextDecoder(lower).encoding;
  } catch {
    throw new DataError(
      `the encoding "${name}" is not known; use one of ${encodingNames.join(", ")}, or a usual name such as latin1`,
    );
  }
}

/** Decodes bytes piece by piece. */
export class Decoder {
  #name: string | undefined;
  #decode: ((bytes: Uint8Array, isLast: boolean) => string) | undefined;

  constructor(encoding?: string) {
    this.#name = encoding === undefined ? undefined : usualName(encoding);
  }

  /**
   * The text of the next bytes; characters that are cut off come with the next piece.
   * @throws DataError for bytes that are not of the encoding
   */
  decode(bytes: Uint8Array, isLast: boolean): string {
    this.#name ??= encodingOf(bytes);
    this.#decode ??= decoderOf(this.#name);
    try {
      return this.#decode(bytes, isLast);
    } catch (error) {
      if ((error as Error).name !== "TypeError") throw tooLarge(bytes.length);
      throw new DataError(`the file is not ${this.#name.toUpperCase()}; give its encoding, one of ${encodingNames.join(", ")}`);
    }
  }
}

const tooLarge = (size: number): DataError =>
  new DataError(`the file has ${Math.round(size / 1e6)} MB, more than one text may have here; as CSV it is read piece by piece`);

function decoderOf(name: string): (bytes: Uint8Array, isLast: boolean) => string {
  if (name.startsWith("utf-32")) return utf32Decoder(name === "utf-32le");
  const decoder = new TextDecoder(name, { fatal: true });
  return (bytes, isLast) => {
    const text = decoder.decode(bytes, { stream: !isLast });
    return name === "windows-1252" ? text.replace(/[\x80-\x9f]/g, (char) => upperPage[char.charCodeAt(0) - 0x80]) : text;
  };
}

function utf32Decoder(isLittle: boolean): (bytes: Uint8Array, isLast: boolean) => string {
  let rest = new Uint8Array();
  return (bytes, isLast) => {
    const all = new Uint8Array(rest.length + bytes.length);
    all.set(rest);
    all.set(bytes, rest.length);
    if (isLast && all.length % 4 !== 0) throw new TypeError("a character is cut off");
    rest = all.slice(all.length - (all.length % 4));
    const view = new DataView(all.buffer);
    const chars: string[] = [];
    for (let at = 0; at + 4 <= all.length; at += 4) {
      const code = view.getUint32(at, isLittle);
      if (code > 0x10ffff || (code >= 0xd800 && code <= 0xdfff)) throw new TypeError("no character has this number");
      if (code !== 0xfeff || at > 0) chars.push(String.fromCodePoint(code));
    }
    return chars.join("");
  };
}

/**
 * Decodes bytes to text.
 * @throws DataError for an encoding that is not known, and for bytes that are not of it
 */
export const decode = (bytes: Uint8Array, encoding?: string): string => new Decoder(encoding).decode(bytes, true);
