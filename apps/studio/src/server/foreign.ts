/**
 * Checks that a request comes from where the studio is meant to be used. Pages of other sites must not drive a server on this machine,
 * neither from their own address (Origin) nor through a name that points here (Host).
 */
const OWN = new Set(["localhost", "127.0.0.1", "[::1]"]);

/** Says in words why a request is foreign, null if it is not. `listens` is the address given to the server to listen on, if any. */
export function foreignIn(headers: Pick<Headers, "get">, listens: string | undefined): string | null {
  const host = headers.get("host") ?? "";
  const name = hostName(host);
  const local = listens === undefined || OWN.has(listens) || listens === "::1";
  // If it listens on all addresses, it accepts any host name.
  if (local && !OWN.has(name)) return `This server answers on this machine only, not as ${name || "a host without a name"}.`;
  const origin = headers.get("origin");
  if (origin === null) return null;
  const from = URL.canParse(origin) ? new URL(origin).host : origin;
  return from === host ? null : `Pages of ${from} may not ask this server.`;
}

function hostName(host: string): string {
  return host.replace(/:\d+$/, "").toLowerCase();
}
