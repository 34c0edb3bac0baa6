/** A proxy in front of the studio's server: it can be stopped, serve another build, and count requests. */
import { createServer, request, type Server } from "node:http";
import type { AddressInfo } from "node:net";

export interface Answer {
  readonly path: string;
  /** The time of the request, from `Date.now`. */
  readonly asked: number;
  /** As they went over the wire, without headers. */
  readonly bytes: number;
}

export interface Stand {
  readonly url: string;
  /** All answers, in order. */
  readonly answers: readonly Answer[];
  stop(): Promise<void>;
  start(): Promise<void>;
  /** From now on it serves a build of another name, whose pages say so at their end. */
  renew(): void;
}

/** What pages of the other build end with. */
export const NEWER = "<!--newer-->";

export async function standBefore(studio: string): Promise<Stand> {
  let newer = false;
  const answers: Answer[] = [];
  const target = new URL(studio);
  const make = (): Server =>
    createServer((asked, answer) => {
      const at = Date.now();
      // Requested completely, because the response is not always what the studio sent.
      const { "if-none-match": _none, "if-modified-since": _since, ...headers } = asked.headers;
      const { hostname: host, port } = target;
      const forwarded = request({
        host,
        port,
        path: asked.url,
        method: asked.method,
        headers: newer ? { ...headers, "accept-encoding": "identity" } : headers,
      });
      forwarded.on("response", (got) => {
        const parts: Buffer[] = [];
        got.on("data", (part: Buffer) => parts.push(part));
        got.on("end", () => {
          let body = Buffer.concat(parts);
          if (newer && asked.url === "/sw.js") body = Buffer.from(body.toString().replaceAll("caravan-studio-", "caravan-studio-newer-"));
          if (newer && String(got.headers["content-type"]).includes("text/html")) body = Buffer.concat([body, Buffer.from(NEWER)]);
          answers.push({ path: asked.url ?? "", asked: at, bytes: body.length });
          const { "content-length": _length, "transfer-encoding": _coding, ...told } = got.headers;
          answer.writeHead(got.statusCode ?? 500, told).end(body);
        });
      });
      asked.pipe(forwarded);
    });
  let server = make();
  const listen = (port: number) => new Promise<void>((done) => server.listen(port, done));
  await listen(0);
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://localhost:${port}/`,
    answers,
    stop: () =>
      new Promise((done) => {
        server.close(() => done());
        server.closeAllConnections();
      }),
    start: () => {
      server = make();
      return listen(port);
    },
    renew: () => {
      newer = true;
    },
  };
}
