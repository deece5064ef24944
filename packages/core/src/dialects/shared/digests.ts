import { md5, sha1 } from "@noble/hashes/legacy.js";
import { sha224, sha256, sha384, sha512 } from "@noble/hashes/sha2.js";
import { hexOf } from "../../values/index.ts";

/** Digests of bytes by name: MD5 (RFC 1321), SHA-1 and SHA-2 (FIPS 180-4). */
export const digests = { md5, sha1, sha224, sha256, sha384, sha512 } as const;

/** A digest in base 16, small letters. */
export const digestText = (name: keyof typeof digests, bytes: Uint8Array): string => hexOf(digests[name](bytes)).toLowerCase();
