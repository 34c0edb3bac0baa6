import { type NextRequest, NextResponse } from "next/server";
import { foreignIn } from "./src/server/foreign";

/**
 * Gives every page a content security policy with a fresh nonce: only our own scripts run, nothing goes to another host.
 * WebAssembly is allowed for the PNG coder; styles may be inline, since lists and popovers are placed by them.
 */
export function proxy(request: NextRequest): NextResponse {
  const foreign = foreignIn(request.headers, process.env.CARAVAN_HOST);
  if (foreign) return new NextResponse(foreign, { status: 403, headers: { "Content-Security-Policy": "default-src 'none'" } });
  const nonce = btoa(crypto.randomUUID());
  // The development server compiles with eval and talks over a socket; a built one does neither.
  const development = process.env.NODE_ENV === "development";
  const policy = [
    "default-src 'self'",
    `script-src 'self' 'nonce-${nonce}' 'strict-dynamic' 'wasm-unsafe-eval'${development ? " 'unsafe-eval'" : ""}`,
    "style-src 'self' 'unsafe-inline'",
    "img-src 'self' blob: data:",
    "font-src 'self'",
    "connect-src 'self'",
    "worker-src 'self' blob:",
    "object-src 'none'",
    "base-uri 'self'",
    "form-action 'self'",
    "frame-ancestors 'none'",
  ].join("; ");
  const headers = new Headers(request.headers);
  headers.set("x-nonce", nonce);
  headers.set("Content-Security-Policy", policy);
  const response = NextResponse.next({ request: { headers } });
  response.headers.set("Content-Security-Policy", policy);
  return response;
}

export const config = {
  // Built files and pictures carry no scripts that a page could not vouch for; uploads pass unheld, so that they can be large.
  matcher: [{ source: "/((?!_next/static|_next/image|icon.svg|demo.caravan|manifest.webmanifest|sw.js|api/).*)" }],
};
