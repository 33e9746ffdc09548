/**
 * Telling outlines apart without keeping them.
 */
import type { Region } from "./ring";

/** Two numbers of 32 bits from all bits of all coordinates, and how many there are (the FNV-1a hash, its prime and another). */
export function fingerprint(region: Region): string {
  let [one, other] = [0x811c9dc5, 0x9747b28c];
  let count = 0;
  for (const ring of region) {
    const words = new Uint32Array(ring.buffer, ring.byteOffset, 2 * ring.length);
    for (const word of words) {
      one = Math.imul(one ^ word, 0x01000193);
      other = Math.imul(other ^ (word + count), 0x85ebca6b) ^ (other >>> 13);
    }
    count += ring.length;
    one = Math.imul(one ^ count, 0x01000193);
  }
  return `${count} ${one} ${other}`;
}
