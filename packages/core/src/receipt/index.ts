export { type DeliveredFile, RECEIPT, type Receipt, readReceipt, receiptAfter, writeReceipt } from "./receipt";
