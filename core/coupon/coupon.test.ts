import { shippedLibrary } from "@mend-joint/library";
import { describe, expect, it } from "vitest";
import { examine } from "../examine";
import { crossingsAt, offset, regionBox } from "../geometry";
import { measureWidths } from "../measure";
import { SHELF, STOCKS, shelfSheetSchema } from "../piece";
import { frameOf, materialOf } from "../strength";
import { fitByScipy } from "../tests/scipy";
import { freshSeed, numbersFrom } from "../tests/seed";
import { figuresOf, SURVIVE, shareOn, widthOn } from "./figures";
import { fitLogistic, quantile, type Trials } from "./logistic";
import { couponPiece } from "./piece";
import { COUPON_SIZE, growing, NECKS, neckPlaces, planCoupon, pullPlaces, ROWS } from "./plan";
import {
  type Coupon,
  couponSchema,
  gapFromKerf,
  kerfFromGap,
  nothingRead,
  parseForce,
  pullForStrength,
  type SurvivalCurve,
  strengthFromPull,
} from "./readings";
import { newFigures, withNewFigures } from "./sheet";

const birch = { ...STOCKS[0]!, kerf: 0.2 };
const walnut = STOCKS.find(({ id }) => id === "walnut-6")!;
const plan = planCoupon(birch);
const coupon = (readings: Partial<Coupon["readings"]>, stock = birch, necks = plan.necks): Coupon => ({
  id: "c1",
  name: "Test piece",
  sheet: stock.id,
  stock,
  plan: { ...plan, necks },
  piece: "p1",
  made: "2026-05-17",
  read: null,
  readings: { ...nothingRead(), ...readings },
});

/** Necks broken and whole as a curve has it. */
function handled(curve: SurvivalCurve, random: () => number, necks = plan.necks, stock = birch): Coupon {
  const readings = nothingRead();
  for (const { row, number, width } of neckPlaces({ necks }))
    readings.necks[row][number] = random() < shareOn(curve, row, width - stock.kerf);
  return coupon(readings, stock, necks);
}

describe("the piece", () => {
  const piece = couponPiece(plan, birch, "Test piece");
  const examination = examine(piece, shippedLibrary());

  it("fits A6 (148 by 105 mm, ISO 216) and is one piece", () => {
    const { minX, minY, maxX, maxY } = regionBox(examination.material)!;
    expect(maxX - minX).toBeCloseTo(COUPON_SIZE.width, 3);
    expect(maxY - minY).toBeCloseTo(COUPON_SIZE.height, 3);
    expect(maxX - minX).toBeLessThan(148);
    expect(maxY - minY).toBeLessThan(105);
    expect(examination.cutouts).toHaveLength(1);
  });

  it("its verdict names every neck that is too narrow, as wide as it is drawn, the narrowest first", () => {
    const wanted = birch.leastWidth + birch.kerf;
    const narrow = neckPlaces(plan).filter(({ width }) => width < wanted);
    const strips = 8;
    const found = examination.findings.filter(({ kind }) => kind === "thin-stroke").map(({ width }) => width);
    const drawn = [...narrow.map(({ width }) => width), ...new Array(strips).fill(0.8)].sort((a, b) => a - b);
    expect(found).toHaveLength(drawn.length);
    for (const [i, width] of found.entries()) expect(width).toBeCloseTo(drawn[i]!, 2);
    // It lets them be: a test piece can be sent to a cutter.
    expect(examination.findings.every(({ accepted }) => accepted !== undefined)).toBe(true);
  });

  it("the load test foretells the order in which necks fail, and their force by the cantilever's formula", () => {
    // The corner that no arm is in.
    const supports = [{ minX: 36, maxX: 44, minY: 12, maxY: 100 }];
    const frame = frameOf(measureWidths(examination.material).medial(), materialOf(birch), supports, birch.kerf);
    const forces = neckPlaces(plan).map(({ row, root, direction, lever, width }) => {
      const end = { x: root.x + direction.x * (lever - 3), y: root.y + direction.y * (lever - 3) };
      const bent = frame.bend({ ...end, force: [direction.y, direction.x, 0] });
      const takes = birch.strength / bent.worst.stress;
      const formula = (birch.strength * birch.thickness * (width - birch.kerf) ** 2) / (6 * (lever - 3));
      // Of wide ones the middle forks beside the root.
      expect(Math.abs(takes / formula - 1), `${row} ${width}`).toBeLessThan(0.04);
      return { row, takes };
    });
    for (const row of ROWS) {
      const takes = forces.filter((each) => each.row === row).map((each) => each.takes);
      expect(takes, row).toEqual([...takes].sort((a, b) => a - b));
    }
  });

  it.each(STOCKS)("can be made for $name", (stock) => {
    const made = planCoupon(stock);
    expect(couponSchema.shape.plan.parse(made)).toEqual(made);
    const force = pullForStrength(stock.strength, made, stock.thickness, stock.kerf);
    expect(strengthFromPull(force, made, stock.thickness, stock.kerf)).toBeCloseTo(stock.strength, 9);
    // A luggage scale reads from a tenth of a kilogram to some forty.
    expect(force).toBeGreaterThan(2);
    expect(force).toBeLessThan(100);
  });

  it("is one also where all that would tell lies beyond what an arm allows, or beneath what can be cut", () => {
    for (const between of [
      [5.4, 9],
      [7, 12],
      [5.5, 5.5],
      [0.01, 0.02],
    ] as const) {
      const made = planCoupon(birch, between);
      expect(couponSchema.shape.plan.parse(made)).toEqual(made);
      // An arm is 6 mm wide.
      expect(made.necks.at(-1)).toBeLessThan(6);
    }
  });

  it("sizes grow, whatever they are asked to lie between", () => {
    for (const between of [
      [0.4, 4],
      [1, 1.1],
      [0.2, 0.25],
      [5.4, 5.5],
    ] as const) {
      const necks = growing(between);
      expect(necks).toHaveLength(NECKS);
      expect(necks.every((mm, i) => i === 0 || mm > necks[i - 1]!)).toBe(true);
    }
  });
});

describe("kerf", () => {
  it("is what opens all slots: read off the outline as it is left by the cut", () => {
    const { material } = examine(couponPiece(plan, birch, "Test piece"), shippedLibrary());
    for (const kerf of [0.1, 0.18, 0.35]) {
      const left = offset(material, -kerf / 2);
      // Across the strips: from the right edge of the window's left side on, every second stretch is empty.
      const crossings = crossingsAt(left, "x", 42).filter((x) => x > 40 && x < 105);
      let gap = 0;
      for (let i = 0; i + 1 < crossings.length; i += 2) gap += crossings[i + 1]! - crossings[i]!;
      expect(kerfFromGap(gap)).toBeCloseTo(kerf, 3);
      expect(gapFromKerf(kerf)).toBeCloseTo(gap, 2);
    }
  });

  it("has a spread from the second coupon on", () => {
    const one = coupon({ gap: gapFromKerf(0.2) });
    const other = coupon({ gap: gapFromKerf(0.24) });
    expect(figuresOf([one], birch).kerf).toEqual({ mean: expect.closeTo(0.2), spread: null, count: 1 });
    expect(figuresOf([one, other], birch).kerf).toEqual({
      mean: expect.closeTo(0.22),
      spread: expect.closeTo(0.0283, 4),
      count: 2,
    });
    expect(figuresOf([coupon({})], birch)).toMatchObject({ kerf: null, kerfUsed: birch.kerf });
  });
});

describe("strength", () => {
  it("is the stress of a cantilever at its root, M / W with W = t·w²/6 (any table of beams; from memory)", () => {
    // 10 N at 38 mm on 4 by 3 mm: 380 N·mm over 8 mm³.
    expect(strengthFromPull(10, { pulled: 4.2 }, 3, 0.2)).toBeCloseTo(47.5, 6);
  });

  it("is what the load test breaks the arm at", () => {
    const examination = examine(couponPiece(plan, birch, "Test piece"), shippedLibrary());
    const frame = frameOf(
      measureWidths(examination.material).medial(),
      materialOf(birch),
      [{ minX: 36, maxX: 44, minY: 12, maxY: 100 }],
      birch.kerf,
    );
    for (const { direction, hook } of pullPlaces) {
      // Beside the hole for the hook.
      const at = direction === "along" ? { x: hook.x, y: hook.y + 3.5 } : { x: hook.x - 3.5, y: hook.y };
      const { worst } = frame.bend({ ...at, force: direction === "along" ? [0, -1, 0] : [1, 0, 0] });
      const stress = strengthFromPull(1, plan, birch.thickness, birch.kerf);
      expect(worst.stress / stress).toBeGreaterThan(0.85);
      expect(worst.stress / stress).toBeLessThan(1.1);
    }
  });
});

describe("least width", () => {
  const curve: SurvivalCurve = { half: 0.9, slope: 7, long: 1.4, across: 1.2 };

  it("fits and intervals are SciPy's (general minimiser on the penalised likelihood, profile by bisection)", () => {
    const random = numbersFrom(freshSeed("logistic fits"));
    const cases = Array.from({ length: 4 }, (_, i) => {
      const drawn: SurvivalCurve = {
        half: 0.6 + random(),
        slope: 3 + 9 * random(),
        long: 1 + random() / 2,
        across: 1 + random() / 3,
      };
      const { necks } = figuresOf([handled(drawn, random), handled(drawn, random)].slice(0, 1 + (i % 2)), walnut);
      const covariates = necks.map(({ row, width }) =>
        i % 3 === 0 ? [1, Math.log(width)] : [1, Math.log(width), Number(row.startsWith("long")), Number(row.endsWith("across"))],
      );
      return {
        trials: { covariates, survived: necks.map(({ survived }) => survived) },
        others: covariates[0]!.map((x, k) => (k === 1 ? 0 : x)),
      };
    });
    const answers = fitByScipy(
      cases.map(({ trials, others }) => ({ ask: "logistic", ...trials, penalised: true, share: SURVIVE, others })),
    );
    cases.forEach(({ trials, others }, i) => {
      const { coefficients, at, from, to } = answers[i]!;
      const whole = fitLogistic(trials);
      for (const [k, value] of whole.coefficients.entries()) expect(value).toBeCloseTo(coefficients[k]!, 3);
      const mine = quantile(trials, whole, SURVIVE, others);
      expect(mine.at).toBeCloseTo(at, 4);
      if (from !== null) expect(mine.from).toBeCloseTo(from, 3);
      if (to !== null) expect(mine.to).toBeCloseTo(to, 3);
    });
  });

  it("is finite where a width parts what broke from what held, as it mostly does", () => {
    const trials: Trials = { covariates: plan.necks.map((w) => [1, Math.log(w)]), survived: plan.necks.map((w) => w > 1.5) };
    const whole = fitLogistic(trials);
    expect(whole.coefficients.every(Number.isFinite)).toBe(true);
    const { at, from, to } = quantile(trials, whole, SURVIVE, [1, 0]);
    expect(Math.exp(at)).toBeGreaterThan(1.5);
    expect(from).toBeLessThan(at);
    expect(to).toBeGreaterThan(at);
  });

  it("finds a hidden curve: its interval has the true width nearly always, and comes down with more coupons", () => {
    const random = numbersFrom(freshSeed("hidden curve"));
    const truth = widthOn(curve, "long across", SURVIVE);
    let within = 0;
    const rounds = 24;
    for (let i = 0; i < rounds; i++) {
      const { least } = figuresOf([handled(curve, random, plan.necks, walnut)], { ...walnut, kerf: walnut.kerf });
      if (least.kind !== "found") continue;
      const worst = least.rows.find(({ row }) => row === "long across")!;
      if (truth >= worst.from && truth <= worst.to) within++;
    }
    // 95 in 100; fewer than seven in ten of 24 would be one run in 10,000 and more (binomial distribution).
    expect(within).toBeGreaterThanOrEqual(0.7 * rounds);
    const many = figuresOf(
      Array.from({ length: 30 }, () => handled(curve, random, plan.necks, walnut)),
      walnut,
    ).least;
    expect(many.kind).toBe("found");
    if (many.kind !== "found") return;
    const worst = many.rows.find(({ row }) => row === "long across")!;
    expect(worst.at / truth).toBeGreaterThan(0.85);
    expect(worst.at / truth).toBeLessThan(1.18);
    expect(worst.to / worst.from).toBeLessThan(1.4);
    expect(many.sure).toBe(true);
  });

  it("a sheet without grain has one figure for both directions", () => {
    const random = numbersFrom(7);
    const rows = (stock: typeof birch) => {
      const { least } = figuresOf([handled(curve, random, plan.necks, stock)], stock);
      return least.kind === "found" ? least.rows.length : 0;
    };
    expect(rows(birch)).toBe(2);
    expect(rows(walnut)).toBe(4);
  });

  it("says so where nothing, too little, or nothing telling was read, and what to cut next", () => {
    const all = (survived: (number: number) => boolean | null) => {
      const readings = nothingRead();
      for (const row of ROWS) readings.necks[row] = plan.necks.map((_, i) => survived(i));
      return figuresOf([coupon(readings)], birch);
    };
    expect(all(() => null).least).toEqual({ kind: "nothing" });
    expect(all((i) => (i === 3 ? true : null)).least).toEqual({ kind: "too few", count: 4, wanted: 8 });
    const held = all(() => true);
    expect(held.least).toMatchObject({ kind: "all held", narrowest: expect.closeTo(0.2) });
    expect(held.next![1]).toBeLessThan(0.5);
    const broke = all(() => false);
    expect(broke.least).toMatchObject({ kind: "all broke", widest: expect.closeTo(3.8) });
    expect(broke.next![0]).toBeGreaterThan(3);
    expect(all((i) => i % 2 === 0).least).toMatchObject({ kind: "contradictory" });
    expect(all((i) => i < 5).least).toMatchObject({ kind: "contradictory" });
    const found = all((i) => i > 4);
    expect(found.least.kind).toBe("found");
    // The next one is denser where it matters.
    const next = planCoupon(birch, found.next!);
    expect(next.necks[0]).toBeGreaterThan(0.4);
    expect(next.necks.at(-1)).toBeLessThan(4);
  });
});

it("the smallest hole is the one from which on all came out clean", () => {
  const holes = (clean: (i: number) => boolean | null) =>
    figuresOf([coupon({ holes: plan.holes.map((_, i) => clean(i)) })], birch).hole;
  expect(holes(() => null)).toBeNull();
  expect(holes(() => false)).toBeNull();
  expect(holes((i) => i >= 3)).toEqual({ diameter: plan.holes[3], contradictory: false });
  expect(holes((i) => i >= 3 || i === 1)).toEqual({ diameter: plan.holes[3], contradictory: true });
});

it("readings that cannot be are turned down with a sentence", () => {
  const read = (gap: number) => couponSchema.safeParse(coupon({ gap }));
  expect(read(gapFromKerf(0.15)).success).toBe(true);
  expect(read(3).error!.issues[0]!.message).toContain("measure the whole gap");
});

it("a pull is read as a scale shows it", () => {
  expect(parseForce("12")).toBe(12);
  expect(parseForce("12,5 N")).toBe(12.5);
  expect(parseForce("1 kg")).toBeCloseTo(9.80665, 5);
  expect(parseForce("850g")).toBeCloseTo(8.336, 3);
  for (const wrong of ["", "-3", "heavy", "0", "1.2.3", "3 lb"]) expect(parseForce(wrong)).toBeNull();
});

describe("the sheet", () => {
  const random = numbersFrom(11);
  const shelved = SHELF.find(({ id }) => id === walnut.id)!;
  const read = handled({ half: 1.3, slope: 8, long: 1.2, across: 1.2 }, random, plan.necks, walnut);
  const holes = plan.holes.map((_, i) => i > 5);
  const figures = figuresOf(
    [{ ...read, readings: { ...read.readings, gap: gapFromKerf(0.35), holes, pulls: { along: 40, across: 12 } } }],
    walnut,
  );

  it("takes over what was found, and says where it comes from", () => {
    const changed = newFigures(shelved, figures);
    expect(changed.map(({ key }) => key).sort()).toEqual(["hole", "kerf", "leastWidth", "strength", "strengthAcross"]);
    const to = Object.fromEntries(changed.map(({ key, to }) => [key, to]));
    expect(figures.least.kind).toBe("found");
    if (figures.least.kind !== "found") return;
    // Never less than was found.
    expect(to.leastWidth).toBeGreaterThanOrEqual(figures.least.rows[0]!.at);
    expect(to.leastWidth! - figures.least.rows[0]!.at).toBeLessThan(0.05);
    expect(to.kerf).toBeCloseTo(0.35, 2);
    expect(to.hole).toBe(plan.holes[6]);
    expect(to.strength).toBe(Math.round(figures.strength.along!.mean));
    expect(to.strengthAcross).toBe(Math.round(figures.strength.across!.mean));
    const next = withNewFigures(shelved, changed, "measured");
    expect(shelfSheetSchema.parse(next).sources).toMatchObject({ leastWidth: "measured", kerf: "measured" });
    expect(newFigures(next, figures)).toEqual([]);
  });

  it("keeps what nothing was found about", () => {
    expect(newFigures(shelved, figuresOf([coupon({})], walnut))).toEqual([]);
    // The machine makes up for its cut: nothing of the sheet's is wrong.
    expect(newFigures(shelved, figuresOf([coupon({ gap: gapFromKerf(0) })], walnut))).toEqual([]);
  });
});
