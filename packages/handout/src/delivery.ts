/** Reads the delivery embedded in the page: the atlas and its pictures, as text. */
import type { Atlas } from "@caravan/player";

interface Carried {
  readonly title: string;
  readonly atlas: Atlas;
  /** Pictures as `data:` addresses, by the names that the atlas gives them. */
  readonly pictures: Readonly<Record<string, string>>;
}

/** A page's pictures, the lowest first, each with its blend mode. */
export type Layers = readonly { readonly picture: HTMLImageElement; readonly operation: GlobalCompositeOperation }[];

export interface Delivery {
  readonly title: string;
  readonly atlas: Atlas;
  readonly pages: readonly Layers[];
}

const OPERATIONS: Readonly<Record<string, GlobalCompositeOperation>> = { add: "lighter", multiply: "multiply" };

/** Throws what a browser throws at a picture that does not open. */
export async function carried(text: string): Promise<Delivery> {
  const { title, atlas, pictures }: Carried = JSON.parse(text);
  const opened = new Map<string, Promise<HTMLImageElement>>();
  const pictureOf = (name: string): Promise<HTMLImageElement> => {
    const known = opened.get(name) ?? open(pictures[name] ?? "");
    opened.set(name, known);
    return known;
  };
  const pages = atlas.pages.map(async ({ image, layers = {} }): Promise<Layers> => {
    const over = (atlas.layers ?? []).filter(({ name }) => Object.hasOwn(layers, name));
    return Promise.all([
      pictureOf(image).then((picture) => ({ picture, operation: "source-over" as const })),
      ...over.map(async ({ name, blend }) => ({
        picture: await pictureOf(layers[name] as string),
        operation: OPERATIONS[blend] ?? ("source-over" as const),
      })),
    ]);
  });
  return { title, atlas, pages: await Promise.all(pages) };
}

async function open(address: string): Promise<HTMLImageElement> {
  const picture = new Image();
  picture.src = address;
  await picture.decode();
  return picture;
}
