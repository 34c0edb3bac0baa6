export type { FrameToDeliver, Goods } from "./goods";
export { type Delivered, type DeliveredPage, deliver, deliverGoods } from "./project";
export type { Proof } from "./proof";
export { type DeliveredFile, RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "./receipt";
