/**
 * What is said of an element, from near and far: its attributes, the rules of style sheets, its own style (CSS Cascading and Inheritance 4,
 * W3C Candidate Recommendation 2022; SVG 2, chapter 6 "Styling").
 */
import { compile, is } from "css-select";
import type * as csstree from "css-tree";
import parseCss from "css-tree/parser";
import { parse as parseSelectors, type Selector, SelectorType } from "css-what";
import type { Element } from "domhandler";
import { SVG_LIMITS, SvgError } from "./limits";
import { type Attributes, isForScreen } from "./tree";

interface Declaration {
  property: string;
  value: string;
  important: boolean;
}

interface Rule {
  matches: (element: Element) => boolean;
  /** Ids, classes and names in its selector, as one number. */
  specificity: number;
  declarations: Declaration[];
}

/** Styles of the elements of one file. */
export class Styles {
  /** The weakest first; of equal ones the first in the file. */
  private readonly rules: Rule[];
  private readonly known = new Map<Element, Attributes>();

  /** @throws SvgError for more rules than a drawing has */
  constructor(sheets: readonly string[]) {
    this.rules = sheets.flatMap(rulesOf).sort((a, b) => a.specificity - b.specificity);
    if (this.rules.length > SVG_LIMITS.rules) {
      throw new SvgError(`The file has more than ${SVG_LIMITS.rules} style rules. Save it with plain attributes instead`);
    }
  }

  /** Attributes, and over them what CSS says; names of properties in small letters. */
  of(element: Element): Attributes {
    const known = this.known.get(element);
    if (known) return known;
    const said = this.rules.filter(({ matches }) => matches(element)).flatMap(({ declarations }) => declarations);
    if (element.attribs.style) said.push(...declarationsIn(element.attribs.style));
    const style = { ...element.attribs };
    for (const important of [false, true]) {
      for (const declaration of said) {
        if (declaration.important === important) style[declaration.property] = declaration.value;
      }
    }
    this.known.set(element, style);
    return style;
  }
}

/** Rules whose selector cannot be read do not count, as CSS has it; nor do those for paper. */
function rulesOf(sheet: string): Rule[] {
  const rules: Rule[] = [];
  const visit = (nodes: csstree.List<csstree.CssNode>) => {
    nodes.forEach((node) => {
      if (node.type === "Atrule" && node.name === "media" && node.block && isForScreen(textOf(node.prelude))) {
        visit(node.block.children);
      }
      if (node.type === "Rule") rules.push(...ruleOf(textOf(node.prelude), declarationsOf(node.block.children)));
    });
  };
  const parsed = parseCss(sheet, { parseValue: false, parseRulePrelude: false, parseAtrulePrelude: false });
  if (parsed.type === "StyleSheet") visit(parsed.children);
  return rules;
}

/** One rule for each selector of a list. */
function ruleOf(prelude: string, declarations: Declaration[]): Rule[] {
  try {
    return parseSelectors(prelude).map((selector) => {
      const query = compile<Element, Element>([selector], { xmlMode: true });
      return { matches: (element) => is(element, query), specificity: specificityOf(selector), declarations };
    });
  } catch {
    return [];
  }
}

/** Selectors 4, section 17: ids before classes before names. */
function specificityOf(selector: readonly Selector[]): number {
  let sum = 0;
  for (const part of selector) {
    if (part.type === SelectorType.Attribute) sum += part.name === "id" && part.action === "equals" ? 1e6 : 1e3;
    else if (part.type === SelectorType.Tag) sum += 1;
    else if (part.type === SelectorType.Pseudo && part.name !== "where") {
      sum += Array.isArray(part.data) ? Math.max(0, ...part.data.map(specificityOf)) : 1e3;
    }
  }
  return sum;
}

function declarationsIn(text: string): Declaration[] {
  const parsed = parseCss(text, { context: "declarationList", parseValue: false });
  return parsed.type === "DeclarationList" ? declarationsOf(parsed.children) : [];
}

function declarationsOf(nodes: csstree.List<csstree.CssNode>): Declaration[] {
  return nodes.toArray().flatMap((node) => {
    if (node.type !== "Declaration") return [];
    return [{ property: node.property.toLowerCase(), value: textOf(node.value), important: node.important !== false }];
  });
}

/** What was asked to stay as it is written. */
const textOf = (node: csstree.CssNode | null): string => (node?.type === "Raw" ? node.value.trim() : "");
