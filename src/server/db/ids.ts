/** UUIDv7 (RFC 9562 5.7): sorted by time of making. Milliseconds and 74 random bits. */
import { createHash, randomBytes } from 'node:crypto';

/** A new id, in the order of the time at which it is made (milliseconds since 1970). */
export function newId(now: number = Date.now()): string {
  const bytes = randomBytes(16);
  bytes.writeUIntBE(now, 0, 6);
  bytes[6] = ((bytes[6] ?? 0) & 0x0f) | 0x70;
  bytes[8] = ((bytes[8] ?? 0) & 0x3f) | 0x80;
  const hex = bytes.toString('hex');
  return `${hex.slice(0, 8)}-${hex.slice(8, 12)}-${hex.slice(12, 16)}-${hex.slice(16, 20)}-${hex.slice(20)}`;
}

/** A private address part: 192 random bits. Only its hash is kept. */
export function newToken(): string {
  return randomBytes(24).toString('base64url');
}

/** What is kept of a private address: its SHA-256, as hexadecimal digits. */
export function hashToken(token: string): string {
  return createHash('sha256').update(token).digest('hex');
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/;

/** Is this written as an id? */
export function isId(text: string): boolean {
  return UUID.test(text);
}
