import type { Metadata, Viewport } from "next";
import { connection } from "next/server";
import type { ReactNode } from "react";
import "@fontsource/atkinson-hyperlegible-next/latin-400.css";
import "@fontsource/atkinson-hyperlegible-next/latin-600.css";
import "@fontsource/atkinson-hyperlegible-next/latin-700.css";
import "@fontsource/atkinson-hyperlegible-mono/latin-400.css";
import "@fontsource/atkinson-hyperlegible-mono/latin-600.css";
import "./globals.css";

/** Titles are left to the pages: the studio's follows its project, and one given here might come after it. */
export const metadata: Metadata = {
  description: "Cuts sprite sheets into frames, builds animation clips, and delivers what a game loads.",
};

export const viewport: Viewport = { colorScheme: "light dark" };

export default async function Layout({ children }: { children: ReactNode }) {
  // The content security policy's nonce is new for each request, so pages are made per request too.
  await connection();
  // What the pages know of a person, as the theme, is written at the root before React takes over. Browsers that translate pages would also
  // translate the names in a project, and show names that no file has.
  return (
    <html lang="en" translate="no" suppressHydrationWarning>
      <body>{children}</body>
    </html>
  );
}
