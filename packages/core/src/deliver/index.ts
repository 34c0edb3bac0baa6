export type { FrameToDeliver } from "./contents";
export { type DeliveredPage, deliver, deliverContents } from "./project";
export type { Proof } from "./proof";
