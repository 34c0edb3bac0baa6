/** New art that brings layers along. */
import type { Arrival, ChangedPicture } from "@caravan/core/edit";
import type { Source } from "@caravan/core/model";
import { say } from "../../ui/notices";
import { t } from "../../ui/words";

/** New art with that of the source's layers; further layers are added at Sources. */
export function withLayersOf(source: Source, { name, pictures, layers = [] }: Arrival): ChangedPicture[] {
  const own = (layer: string) => source.layers?.find((each) => each.name.toLowerCase() === layer.toLowerCase())?.name;
  const others = layers.filter((layer) => own(layer.name) === undefined);
  if (others.length > 0)
    say({
      tone: "trouble",
      text:
        others.length === 1
          ? t("{source} has no layer {others}: {picture} was imported without it. Add it at Sources.", {
              source: source.name,
              others: others.map((each) => each.name).join(", "),
              picture: name,
            })
          : t("{source} has no layer {others}: {picture} was imported without them. Add them at Sources.", {
              source: source.name,
              others: others.map((each) => each.name).join(", "),
              picture: name,
            }),
    });
  return pictures.map((picture, k) => {
    const over = layers.flatMap((layer) => {
      const [called, art] = [own(layer.name), layer.pictures[k]];
      return called !== undefined && art ? [{ name: called, ...art }] : [];
    });
    return over.length > 0 ? { ...picture, layers: over } : picture;
  });
}
