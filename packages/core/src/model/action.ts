import * as z from "zod";
import { ClipName } from "./clip";
import { Facing } from "./facing";
import { Name } from "./name";

/** How many directions an action has. */
export const Ways = z.union([z.literal(1), z.literal(2), z.literal(4), z.literal(8)]);
export type Ways = z.infer<typeof Ways>;

/** The facings of each rose: one looks at the viewer, two look aside, four and eight go round. Clockwise from `e`. */
export const FACINGS_OF: Record<Ways, readonly Facing[]> = {
  1: ["s"],
  2: ["e", "w"],
  4: ["e", "s", "w", "n"],
  8: ["e", "se", "s", "sw", "w", "nw", "n", "ne"],
};

export const ActionName = Name.brand<"ActionName">();
export type ActionName = z.infer<typeof ActionName>;

/** What an action plays in one facing. */
export const Petal = z.strictObject({
  clip: ClipName,
  mirror: z.literal(true).optional().describe("Present if it is drawn mirrored about the origin."),
});
export type Petal = z.infer<typeof Petal>;

/** One movement in all its facings. A facing of its rose without an entry is missing. */
export const Action = z
  .strictObject({
    name: ActionName,
    ways: Ways,
    facings: z.partialRecord(Facing, Petal),
  })
  .refine(({ ways, facings }) => Object.keys(facings).every((each) => FACINGS_OF[ways].includes(each as Facing)), {
    message: "A facing is not on its rose.",
  });
export type Action = z.infer<typeof Action>;

/** The facings of an action's rose for which it has a clip, clockwise from `e`. */
export function facingsPresent({ ways, facings }: Pick<Action, "ways" | "facings">): Facing[] {
  return FACINGS_OF[ways].filter((facing) => facings[facing] !== undefined);
}
