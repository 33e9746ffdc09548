/**
 * Coupons: test pieces that tell what a sheet bears, and the figures that follow.
 */
export {
  type CouponFigures,
  figuresOf,
  type LeastWidth,
  type Measured,
  SURVIVE,
  shareOn,
  widthOn,
} from "./figures";
export { couponPiece } from "./piece";
export {
  COUPON_SIZE,
  type CouponPlan,
  couponRings,
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
  nothingRead,
  parseForce,
  pullForStrength,
  type Readings,
  readingsSchema,
  type SurvivalCurve,
  strengthFromPull,
} from "./readings";
export { type NewFigure, newFigures, withNewFigures } from "./sheet";
