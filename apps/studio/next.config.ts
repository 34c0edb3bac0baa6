import { join } from "node:path";
import type { NextConfig } from "next";

/** Headers that no page needs a say in; the content security policy is made per request in proxy.ts. */
const HEADERS = [
  { key: "X-Content-Type-Options", value: "nosniff" },
  { key: "Referrer-Policy", value: "no-referrer" },
  { key: "X-Frame-Options", value: "DENY" },
  { key: "Cross-Origin-Opener-Policy", value: "same-origin" },
  { key: "Cross-Origin-Resource-Policy", value: "same-origin" },
  { key: "Permissions-Policy", value: "camera=(), microphone=(), geolocation=(), payment=(), usb=()" },
];

const NOTHING = { key: "Content-Security-Policy", value: "default-src 'none'; frame-ancestors 'none'" };

const config: NextConfig = {
  transpilePackages: ["@caravan/core", "@caravan/crossing", "@caravan/player"],
  turbopack: { root: join(import.meta.dirname, "../..") },
  outputFileTracingRoot: join(import.meta.dirname, "../.."),
  // Types are checked by the test command, beside the build.
  typescript: { ignoreBuildErrors: true },
  poweredByHeader: false,
  reactStrictMode: true,
  headers: async () => [
    { source: "/:path*", headers: HEADERS },
    // What keeps the studio offline asks only its own server.
    { source: "/sw.js", headers: [{ key: "Content-Security-Policy", value: "default-src 'none'; connect-src 'self'" }] },
    // What is no page runs nothing and loads nothing.
    ...["/api/:path*", "/demo.caravan", "/icon.svg", "/manifest.webmanifest"].map((source) => ({ source, headers: [NOTHING] })),
  ],
};

export default config;
