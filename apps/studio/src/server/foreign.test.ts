import { describe, expect, it } from "vitest";
import { foreignIn } from "./foreign";

const asked = (headers: Record<string, string>, listens?: string) => foreignIn(new Headers(headers), listens);

describe("foreignIn", () => {
  it("lets this machine's own names ask, with and without an origin of the same host", () => {
    for (const host of ["localhost:4600", "127.0.0.1:4600", "[::1]:4600", "LOCALHOST"]) {
      expect(asked({ host })).toBeNull();
      expect(asked({ host: host.toLowerCase(), origin: `http://${host.toLowerCase()}` })).toBeNull();
    }
  });

  it("refuses a name that only points here, and pages of any other site or port", () => {
    expect(asked({ host: "evil.example:4600" })).toMatch(/not as evil\.example/);
    expect(asked({})).toMatch(/without a name/);
    for (const origin of ["https://evil.example", "http://localhost:9999", "null"])
      expect(asked({ host: "localhost:4600", origin })).toMatch(/may not ask/);
  });

  it("accepts any host name when it listens on all addresses, but still refuses pages of other sites", () => {
    expect(asked({ host: "studio.lan:4600" }, "0.0.0.0")).toBeNull();
    expect(asked({ host: "studio.lan:4600", origin: "https://evil.example" }, "0.0.0.0")).toMatch(/may not ask/);
  });
});
