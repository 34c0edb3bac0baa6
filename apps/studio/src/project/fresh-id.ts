/** An id that no other thing has: 128 bits by chance, as hex. Unlike `crypto.randomUUID`, it is also to be had where a page comes over plain HTTP from another machine. */
export function freshId(): string {
  return [...crypto.getRandomValues(new Uint8Array(16))].map((byte) => byte.toString(16).padStart(2, "0")).join("");
}
