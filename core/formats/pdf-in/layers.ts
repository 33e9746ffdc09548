/**
 * Layers of a PDF: what they are called, and which are switched off (ISO 32000-1, 8.11 "Optional Content").
 */
import { PDFArray, PDFDict, PDFHexString, PDFName, type PDFObject, PDFRef, PDFString } from "@cantoo/pdf-lib";
import type { Look } from "./colours";

export class Layers {
  private readonly off = new Set<PDFObject>();
  private readonly on = new Set<PDFObject>();
  private readonly usuallyOff: boolean;

  constructor(
    catalog: PDFDict,
    private readonly look: Look,
  ) {
    const properties = this.look(catalog.get(PDFName.of("OCProperties")));
    const usual = properties instanceof PDFDict ? this.look(properties.get(PDFName.of("D"))) : undefined;
    this.usuallyOff = usual instanceof PDFDict && usual.get(PDFName.of("BaseState")) === PDFName.of("OFF");
    if (!(usual instanceof PDFDict)) return;
    for (const [key, groups] of [
      ["OFF", this.off],
      ["ON", this.on],
    ] as const) {
      const listed = this.look(usual.get(PDFName.of(key)));
      if (listed instanceof PDFArray) for (const each of listed.asArray()) groups.add(each);
    }
  }

  /** @param group as the page refers to it */
  isOff(group: PDFObject | undefined): boolean {
    const found = this.look(group);
    if (!(found instanceof PDFDict)) return false;
    // One of several: it shows where any of them does, unless it says otherwise.
    if (found.get(PDFName.of("Type")) === PDFName.of("OCMD")) return this.areOff(found);
    const key = group instanceof PDFRef ? group : found;
    return this.usuallyOff ? !this.on.has(key) : this.off.has(key);
  }

  nameOf(group: PDFObject | undefined): string | null {
    const found = this.look(group);
    const name = found instanceof PDFDict ? this.look(found.get(PDFName.of("Name"))) : undefined;
    return name instanceof PDFString || name instanceof PDFHexString ? name.decodeText() : null;
  }

  private areOff(membership: PDFDict): boolean {
    const listed = membership.get(PDFName.of("OCGs"));
    const found = this.look(listed);
    const groups = found instanceof PDFArray ? found.asArray() : listed ? [listed] : [];
    const off = groups.map((group) => this.isOff(group));
    const policy = membership.get(PDFName.of("P"));
    if (off.length === 0) return false;
    if (policy === PDFName.of("AllOn")) return off.includes(true);
    if (policy === PDFName.of("AnyOff")) return !off.includes(true);
    if (policy === PDFName.of("AllOff")) return off.includes(false);
    return !off.includes(false);
  }
}
