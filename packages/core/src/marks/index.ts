export {
  commonOrigin,
  DRAWN_WAYS,
  type DrawnWay,
  drawnOrigin,
  halves,
  type OriginPlace,
  originAtPlace,
  PLACES,
  pointAtShare,
  sameSizes,
  shareOf,
} from "./origin";
