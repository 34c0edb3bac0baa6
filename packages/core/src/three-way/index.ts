export { areMostlyAlike } from "./alike";
export { type Clash, merged, same } from "./three-way";
