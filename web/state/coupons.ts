/**
 * Test pieces of one sheet, and what was read off them.
 */
import { type Coupon, couponSchema } from "@mend-joint/core/coupon";
import { useEffect } from "react";
import { create } from "zustand";
import { today } from "../ui/today";
import { call, send } from "./api";
import { createQueue } from "./inOrder";

interface Coupons {
  /** Whose they are; `null` before any were asked for. */
  sheet: string | null;
  /** In the order in which they were made; `null` until the server has said. */
  coupons: readonly Coupon[] | null;
  fault: string | null;
}

const useStore = create<Coupons>()(() => ({ sheet: null, coupons: null, fault: null }));

async function fetchCoupons(sheet: string): Promise<void> {
  try {
    const { coupons } = await call<{ coupons: Coupon[] }>(`/coupons?sheet=${encodeURIComponent(sheet)}`);
    if (useStore.getState().sheet === sheet) useStore.setState({ coupons, fault: null });
  } catch (error) {
    if (useStore.getState().sheet === sheet) useStore.setState({ fault: (error as Error).message });
  }
}

/** All of a sheet, asked for when they are first wanted. */
export function useCoupons(sheet: string): Omit<Coupons, "sheet"> {
  const { sheet: own, coupons, fault } = useStore();
  useEffect(() => {
    useStore.setState({ sheet, coupons: null, fault: null });
    void fetchCoupons(sheet);
  }, [sheet]);
  return own === sheet ? { coupons, fault } : { coupons: null, fault: null };
}

const afterOthers = createQueue(async () => {
  const { sheet } = useStore.getState();
  if (sheet !== null) await fetchCoupons(sheet);
});

const show = (coupon: Coupon) =>
  useStore.setState(({ sheet, coupons }) => {
    if (sheet !== coupon.sheet || coupons === null) return {};
    const known = coupons.some(({ id }) => id === coupon.id);
    return { coupons: known ? coupons.map((each) => (each.id === coupon.id ? coupon : each)) : [...coupons, coupon] };
  });

const at = (id: string) => `/coupons/${encodeURIComponent(id)}`;

/** Shown at once; also puts back one that was taken away. @throws ApiError */
export function saveCoupon(coupon: Coupon): Promise<void> {
  show(coupon);
  return afterOthers(coupon.id, () => call(at(coupon.id), send("PUT", coupon)));
}

/** The next test piece of a sheet, as a piece on the rack too. @throws ApiError */
export async function makeCoupon(sheet: string): Promise<Coupon> {
  const made = couponSchema.parse(await call("/coupons", send("POST", { sheet, made: today() })));
  show(made);
  return made;
}

/** @throws ApiError */
export function tryCoupon(coupon: Coupon): Promise<void> {
  return afterOthers(`${coupon.id} trial`, async () =>
    show(couponSchema.parse(await call(`${at(coupon.id)}/trial`, send("POST", { read: today() })))),
  );
}

/** @throws ApiError */
export function dropCoupon({ id }: Coupon): Promise<void> {
  useStore.setState(({ coupons }) => ({ coupons: coupons?.filter((each) => each.id !== id) ?? null }));
  return afterOthers(id, () => call(at(id), { method: "DELETE" }));
}
