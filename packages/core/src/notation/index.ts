export { looksLikeIndex, namesInOrder } from "./key-order";
export { leafOf, leafOfQuoted, numberOf } from "./leaf";
export { type Container, inNoNotation, notationsOf, type ParsedMetadata, parseAs, parseMetadata } from "./notations";
export { repeatedKey } from "./repeated-key";
export { headOf, listedSections, PAIR, REMARK } from "./sections";
export { TABLE, tableHeads } from "./table";
export { type Leaf, problem, type Tree } from "./tree";
export { whyNotJson } from "./why-not-json";
export { plainLeaf, YAML_AS_TEXT } from "./yaml";
