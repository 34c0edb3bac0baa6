import { type Delivery, type Frame, frameSize, type Source, scaledSide } from "@caravan/core/model";
import { t } from "../ui/words";

/** Lists a frame's sizes: in the game; on its sheet, if that differs (padded or stored turned); and in deliveries at other scales. */
export function sizeFacts(
  source: Pick<Source, "scale">,
  frame: Pick<Frame, "rect" | "size" | "turned">,
  deliveries: readonly Pick<Delivery, "densities">[],
): [string, string][] {
  const { w, h } = frameSize(source, frame);
  const { rect } = frame;
  const scales = new Set(deliveries.flatMap(({ densities }) => densities.map(({ scale }) => scale)));
  scales.delete(1);
  return [
    [t("size"), `${w} × ${h}`],
    ...(rect.w === w && rect.h === h ? [] : [[t("on the sheet"), `${rect.w} × ${rect.h}`] as [string, string]]),
    ...[...scales]
      .sort((a, b) => a - b)
      .map((scale): [string, string] => [t("delivered at ×{scale}", { scale }), `${scaledSide(w, scale)} × ${scaledSide(h, scale)}`]),
  ];
}
