/**
 * Random SVG files with what drawing programs and people write: groups, copies, viewports, clips, switches, style sheets, units, transforms.
 */
import { Draw } from "./draw";

const WIDTH = 120;
const HEIGHT = 90;

/** Makes one file; what is to be copied or to clip is drawn before it is named. */
class Svg {
  private readonly draw: Draw;
  private readonly targets: string[] = [];
  private readonly clips: string[] = [];
  private ids = 0;
  /** Copies are styled by where they come from, or by where they lie: renderers do not agree, so a file has either them or such rules. */
  private readonly hasCopies: boolean;

  constructor(seed: number) {
    this.draw = new Draw(seed);
    this.hasCopies = this.draw.chance(0.5);
  }

  file(): string {
    const { draw } = this;
    const defs = [...Array(3).keys()].map((i) => this.clip(`clip${i}`)).join("") + (this.hasCopies ? this.symbol("symbol") : "");
    const body = [...Array(3).keys()].map(() => this.nodes(0)).join("");
    const viewBox = draw.chance(0.7);
    const size = viewBox
      ? `width="${WIDTH}mm" height="${HEIGHT}mm" viewBox="0 0 ${WIDTH} ${HEIGHT}"`
      : `width="${3 * WIDTH}" height="${3 * HEIGHT}"`;
    return `<svg xmlns="http://www.w3.org/2000/svg" ${size}>${this.sheet()}<defs>${defs}</defs>${body}</svg>`;
  }

  private n(least: number, most: number): string {
    return this.draw.from(least, most).toFixed(2);
  }

  private at(): string {
    return `${this.n(0, 100)} ${this.n(0, 80)}`;
  }

  private nodes(depth: number): string {
    return [...Array(1 + Math.floor(this.draw.from(0, 2.99))).keys()].map(() => this.node(depth)).join("");
  }

  private node(depth: number): string {
    const { draw } = this;
    if (depth > 3 || draw.chance(0.45)) return this.shape();
    return draw.one([
      () => this.group(depth),
      () => this.viewport(depth),
      () => this.alternatives(depth),
      () => (this.hasCopies && this.targets.length > 0 ? this.copy() : this.shape()),
    ])();
  }

  private group(depth: number): string {
    const id = this.draw.chance(0.3) ? `g${this.ids++}` : null;
    const inner = this.nodes(depth + 1);
    if (id) this.targets.push(id);
    return `<g${id ? ` id="${id}"` : ""}${this.said()}>${inner}</g>`;
  }

  private viewport(depth: number): string {
    const { draw } = this;
    const viewBox = draw.chance(0.7)
      ? ` viewBox="${this.n(-10, 10)} ${this.n(-10, 10)} ${this.n(50, 150)} ${this.n(50, 150)}"`
      : "";
    const aspect = draw.chance(0.4)
      ? ` preserveAspectRatio="${draw.one(["none", "xMinYMax meet", "xMaxYMid slice", "xMidYMin"])}"`
      : "";
    const overflow = draw.chance(0.3) ? ' overflow="visible"' : "";
    const [x, width] = [draw.one([this.n(-10, 40), "10%"]), draw.one([this.n(20, 100), "60%"])];
    return `<svg x="${x}" y="${this.n(-10, 30)}" width="${width}" height="${this.n(20, 80)}"${viewBox}${aspect}${overflow}>${this.nodes(depth + 1)}</svg>`;
  }

  private alternatives(depth: number): string {
    const unsuited = this.draw.one(['requiredExtensions="http://example.invalid/x"', 'systemLanguage="tlh"']);
    return `<switch><g ${unsuited}>${this.shape()}</g><g>${this.node(depth + 1)}</g>${this.shape()}</switch>`;
  }

  private copy(): string {
    const { draw } = this;
    const place = draw.chance(0.5) ? ` x="${this.n(-20, 30)}" y="${draw.one([this.n(-20, 30), "10%"])}"` : "";
    const size = draw.chance(0.3) ? ` width="${this.n(20, 80)}" height="${this.n(20, 80)}"` : "";
    return `<use href="#${draw.one(this.targets)}"${place}${size}${this.said()}/>`;
  }

  private clip(id: string): string {
    const { draw } = this;
    this.clips.push(id);
    const turned = draw.chance(0.3) ? ` transform="rotate(${this.n(-20, 20)})"` : "";
    const first = draw.one([
      `<circle cx="${this.n(20, 80)}" cy="${this.n(20, 60)}" r="${this.n(15, 50)}"/>`,
      `<rect x="${this.n(0, 40)}" y="${this.n(0, 30)}" width="${this.n(20, 90)}" height="${this.n(20, 70)}" transform="rotate(${this.n(-30, 30)})"/>`,
    ]);
    const second = draw.chance(0.5)
      ? `<path d="M${this.n(0, 60)} ${this.n(0, 40)}h50v40h-50zm10 10h20v10h-20z" clip-rule="${draw.one(["evenodd", "nonzero"])}"/>`
      : "";
    return `<clipPath id="${id}"${turned}>${first}${second}</clipPath>`;
  }

  private symbol(id: string): string {
    this.targets.push(id);
    const viewBox = this.draw.chance(0.6) ? ` viewBox="0 0 ${this.n(50, 120)} ${this.n(50, 120)}"` : "";
    return `<symbol id="${id}"${viewBox}>${this.shape()}${this.shape()}</symbol>`;
  }

  private sheet(): string {
    const { draw } = this;
    const selectors = [".a", ".b", "rect", "path.a", "#s1", ".a.b", "path, .c", "path:not(.a)", "[fill]"];
    if (!this.hasCopies) selectors.push("g > .b", "g .c", "#g0 *", "rect:first-child", "circle + path", "g *");
    const rules = [...Array(Math.floor(draw.from(0, 4.99))).keys()].map(() => {
      const said = [
        "fill:none",
        "fill:black",
        "fill-rule:evenodd",
        "display:none",
        "visibility:hidden",
        "fill:#00f !important",
        "opacity:1",
      ];
      return `${draw.one(selectors)}{${draw.one(said)}}`;
    });
    return `<style>/* all */${rules.join("\n")}@media print{*{display:none}}</style>`;
  }

  private said(): string {
    const { draw } = this;
    let said = "";
    const css: string[] = [];
    if (draw.chance(0.2)) said += ` transform="${this.transform()}${draw.chance(0.3) ? ` ${this.transform()}` : ""}"`;
    else if (draw.chance(0.15)) css.push(`transform:${this.cssTransform()}${draw.chance(0.3) ? ` ${this.cssTransform()}` : ""}`);
    if (css.length > 0 && draw.chance(0.5)) css.push(`transform-origin:${this.origin()}`);
    if (draw.chance(0.08)) css.push(`fill:${draw.one(["none", "navy", "rgb(0,0,0)", "red !important"])}`);
    if (draw.chance(0.25)) said += ` class="${draw.one(["a", "b", "c", "a b"])}"`;
    if (draw.chance(0.12)) said += ` fill="${draw.one(["none", "#123", "black", "currentColor", "inherit"])}"`;
    if (draw.chance(0.08)) said += ` fill-rule="${draw.one(["evenodd", "nonzero"])}"`;
    if (draw.chance(0.04)) said += ` display="${draw.one(["none", "inline"])}"`;
    if (draw.chance(0.06)) said += ` visibility="${draw.one(["hidden", "visible"])}"`;
    if (draw.chance(0.04)) said += ` fill-opacity="${draw.one(["0", "0.5"])}"`;
    if (draw.chance(0.12)) said += ` clip-path="url(#${draw.one(this.clips)})"`;
    return css.length > 0 ? `${said} style="${css.join(";")}"` : said;
  }

  private cssTransform(): string {
    const t = (a: number, b: number) => this.n(a, b);
    return this.draw.one([
      () => `translate(${t(-20, 20)}px, ${t(-15, 15)}px)`,
      () => `translate(${t(-20, 20)}%, ${t(-15, 15)}%)`,
      () => `translateX(${t(-20, 20)}px)`,
      () => `translateY(${t(-4, 4)}mm)`,
      () => `rotate(${t(-90, 90)}deg)`,
      () => `rotate(${t(-0.2, 0.2)}turn)`,
      () => `scale(${t(0.5, 1.4)}, ${t(0.5, 1.4)})`,
      () => `scaleX(${t(-1.2, -0.5)})`,
      () => `skewX(${t(-20, 20)}deg)`,
    ])();
  }

  private origin(): string {
    return this.draw.one([`${this.n(0, 100)}px ${this.n(0, 80)}px`, "50% 50%", "center", "left bottom", "top right", "20% 30%"]);
  }

  private transform(): string {
    const t = (a: number, b: number) => this.n(a, b);
    return this.draw.one([
      () => `translate(${t(-20, 20)} ${t(-15, 15)})`,
      () => `translate(${t(-20, 20)})`,
      () => `rotate(${t(-90, 90)})`,
      () => `rotate(${t(-90, 90)}, ${t(0, 80)}, ${t(0, 60)})`,
      () => `scale(${t(0.5, 1.5)})`,
      () => `scale(${t(0.5, 1.4)},${t(-1.4, -0.5)})`,
      () => `skewX(${t(-25, 25)})`,
      () => `skewY(${t(-25, 25)})`,
      () => `matrix(${t(0.6, 1.2)} ${t(-0.3, 0.3)} ${t(-0.3, 0.3)} ${t(0.6, 1.2)} ${t(-9, 9)} ${t(-9, 9)})`,
    ])();
  }

  private shape(): string {
    const { draw } = this;
    const id = draw.chance(0.3) ? `s${this.ids++}` : null;
    if (id) this.targets.push(id);
    const said = (id ? ` id="${id}"` : "") + this.said();
    return draw.one([
      () =>
        `<rect x="${this.n(0, 80)}" y="${this.n(0, 60)}" width="${draw.one([this.n(5, 40), "25%", "8mm"])}" height="${this.n(5, 40)}" rx="${draw.one(["0", this.n(1, 30), "10%"])}"${said}/>`,
      () =>
        `<circle cx="${this.n(0, 100)}" cy="${draw.one([this.n(0, 80), "40%"])}" r="${draw.one([this.n(3, 20), "8%"])}"${said}/>`,
      () => `<ellipse cx="${this.n(0, 100)}" cy="${this.n(0, 80)}" rx="${this.n(3, 20)}" ry="${this.n(3, 12)}"${said}/>`,
      () => `<${draw.one(["polygon", "polyline"])} points="${this.at()} ${this.at()},${this.at()} ${this.at()}"${said}/>`,
      () =>
        `<path d="M${this.at()}${[...Array(4).keys()].map(() => this.step()).join(draw.one(["", " "]))}${draw.one(["z", ""])}"${said}/>`,
    ])();
  }

  private step(): string {
    const s = (a: number, b: number) => this.n(a, b);
    const by = () => `${s(-20, 20)} ${s(-20, 20)}`;
    return this.draw.one([
      () => `L${this.at()}`,
      () => `l${by()}`,
      () => `H${s(0, 100)}`,
      () => `v${s(-30, 30)}`,
      () => `c${by()} ${by()} ${by()}`,
      () => `s${by()},${by()}`,
      () => `Q${this.at()} ${this.at()}`,
      () => `t${by()}`,
      () => `A${s(3, 30)} ${s(3, 30)} ${s(0, 90)} ${this.draw.one(["0", "1"])} 1 ${this.at()}`,
      () => `a${s(3, 30)} ${s(3, 30)} 0 1${this.draw.one(["0", "1"])}${by()}`,
      () => `zm${by()}`,
    ])();
  }
}

/** @returns the same file for the same seed */
export const randomSvg = (seed: number): string => new Svg(seed).file();
