/** 24 figures of chance: a new record's id. A phone on a stage's own network has no randomUUID, which needs https. */
export function freshId(): string {
  return Array.from(crypto.getRandomValues(new Uint8Array(12)), (byte) => byte.toString(16).padStart(2, '0')).join('');
}
