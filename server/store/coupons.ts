/**
 * Test pieces of sheets, with what was read off them.
 */
import { type Coupon, couponSchema } from "@mend-joint/core/coupon";
import { ownDocuments } from "./own";

export const coupons = ownDocuments<Coupon>("coupon", couponSchema);
