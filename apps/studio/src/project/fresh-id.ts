/**
 * Makes a unique id: 128 random bits as hex. Unlike `crypto.randomUUID`, it also works on pages served over plain HTTP from another
 * machine.
 */
export function freshId(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
