// The script and the style of the page to hand round, as the core puts them in: bundled from packages/handout.
import { join } from "node:path";
import { build, type OutputFile } from "esbuild";

const handout = join(import.meta.dirname, "../packages/handout/src");

/** The text of packages/core/src/deliver/handout-parts.ts. Throws what the bundler has to say. */
export async function handoutParts(): Promise<string> {
  const bundled = async (entry: string): Promise<string> => {
    const { outputFiles } = await build({
      entryPoints: [join(handout, entry)],
      write: false,
      bundle: true,
      minify: true,
      format: "iife",
      target: "es2022",
      charset: "utf8",
      legalComments: "none",
      logLevel: "warning",
    });
    // What would end the element that it stands in.
    return (outputFiles[0] as OutputFile).text.trim().replace(/<\/(script|style)/gi, "<\\/$1");
  };
  const [script, style] = [await bundled("main.ts"), await bundled("page.css")];
  return `/** Made from packages/handout by \`npm run handout\`; a test holds it up to date. */
export const SCRIPT = ${JSON.stringify(script)};
export const STYLE = ${JSON.stringify(style)};
`;
}
