const SIGNS = "ABCDEFGHIJKLMNOPQRSTUVWXYZabcdefghijklmnopqrstuvwxyz0123456789+/";
const VALUES = new Uint8Array(128).fill(0);
[...SIGNS].forEach((c, i) => (VALUES[c.charCodeAt(0)] = i));

/** The bytes of a base64 text (RFC 4648); core has no library that reads them. */
export function bytesOfBase64(text: string): Uint8Array {
  const clean = text.replace(/=+$/, ""),
    bytes = new Uint8Array(Math.floor((clean.length * 3) / 4));
  let bits = 0,
    held = 0,
    at = 0;
  for (let i = 0; i < clean.length; i++) {
    held = (held << 6) | VALUES[clean.charCodeAt(i) & 127]!;
    bits += 6;
    if (bits < 8) continue;
    bits -= 8;
    bytes[at++] = (held >> bits) & 255;
    held &= (1 << bits) - 1;
  }
  return bytes;
}
