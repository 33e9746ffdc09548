/**
 * Coupons: test pieces that tell what a sheet bears, and the figures that follow.
 */
export {
  ALL_NECKS,
  type CouponFigures,
  figuresOf,
  type LeastWidth,
  type Measured,
  openReadings,
  type RowWidth,
  SURVIVE,
  shareOn,
  widthOn,
} from "./figures";
export type { Quantile } from "./logistic";
export { couponPiece } from "./piece";
export {
  COUPON_SIZE,
  type CouponPlan,
  couponPlanSchema,
  couponRings,
  growing,
  holePlaces,
  NECKS,
  neckPlaces,
  type PlacedNeck,
  PULLED,
  planCoupon,
  pullPlaces,
  ROWS,
  type Row,
} from "./plan";
export {
  type Coupon,
  couponSchema,
  gapFromKerf,
  kerfFromGap,
  nothingRead,
  parseForce,
  type Readings,
  readingsSchema,
  type SurvivalCurve,
  strengthFromPull,
} from "./readings";
export { type NewFigure, newFigures, withNewFigures } from "./sheet";
