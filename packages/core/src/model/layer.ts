/** Schema of layers over the pictures of a source: light over a body, a shadow, a glow. */
import * as z from "zod";
import { t } from "../words";
import { Clearing } from "./clearing";
import { CaravanError } from "./error";
import { fitFileName, fittedName, Name } from "./name";
import { Picture } from "./picture";

export const BLENDS = ["normal", "add", "multiply"] as const;
export const Blend = z.enum(BLENDS).describe("The blend mode of a layer: painted over, added as light, or multiplied as shade.");
export type Blend = z.infer<typeof Blend>;

/** The most layers over a source's pictures. */
export const MOST_LAYERS = 8;

/** A layer's name is part of the names of delivered files. */
const LayerName = Name.max(60).refine((text) => fitFileName(text) === text, "It contains a character that file names cannot have.");

export const Layer = z.strictObject({
  name: LayerName.describe("Layers with the same name are one layer of a delivery."),
  blend: Blend,
  clearing: Clearing.optional().describe("How an opaque background of its pictures is cleared."),
  pictures: z.array(Picture).min(1).describe("One per picture of the source, of the same size."),
});
export type Layer = z.infer<typeof Layer>;

/** Whether a layer shows the figure rather than its lighting: feet, outlines and origins go by such layers only. */
export function isFigure({ blend }: Pick<Layer, "blend">): boolean {
  return blend === "normal";
}

/** `text` as a layer's name. Throws `bad-name` if it cannot be one. */
export function checkedLayerName(text: string): string {
  const name = fittedName(text, 60);
  if (name === null || fitFileName(name) !== name)
    throw new CaravanError(
      "bad-name",
      t('layer "{name}"', { name: text }),
      t("A layer's name is part of file names, and some systems do not allow this one."),
      t('Leave out \\ / : * ? " < > | and a dot at the end.'),
    );
  return name;
}
