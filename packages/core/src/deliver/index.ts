export type { Contents, FrameToDeliver } from "./contents";
export { type Delivered, type DeliveredPage, deliver, deliverContents } from "./project";
export type { Proof } from "./proof";
export { type DeliveredFile, RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "./receipt";
