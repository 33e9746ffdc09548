/**
 * Copies in an SVG: what `use` points at, kept while the file is read (SVG 2, section 5.6).
 */

/** An element as it opens; `null` where one closes. */
export type Recorded = ({ name: string; attributes: Record<string, string> } | null)[];

/** Of what a `use` in the same file points at. */
export function targetOf(attributes: Record<string, string>): string | null {
  const href =
    attributes.href ?? attributes["xlink:href"] ?? Object.entries(attributes).find(([key]) => key.endsWith(":href"))?.[1];
  return href?.trim().startsWith("#") ? href.trim().slice(1) : null;
}

/** Elements that something points at, with all that lies in them. Most files have none, and nothing is kept of those. */
export class Referenced {
  private readonly wanted: ReadonlySet<string>;
  private readonly kept = new Map<string, Recorded>();
  private open: { tags: Recorded; depth: number }[] = [];

  constructor(text: string) {
    const uses = text.matchAll(/<(?:[\w.-]+:)?use\b[^>]*?href\s*=\s*(?:"\s*#([^"]+)"|'\s*#([^']+)')/gi);
    this.wanted = new Set(Array.from(uses, ([, one, other]) => (one ?? other)!.trim()));
  }

  opened(name: string, attributes: Record<string, string>): void {
    if (this.wanted.size === 0) return;
    const id = attributes.id?.trim();
    // The first of several with one id is the one that is meant.
    if (id && this.wanted.has(id) && !this.kept.has(id)) {
      const tags: Recorded = [];
      this.kept.set(id, tags);
      this.open.push({ tags, depth: 0 });
    }
    for (const recording of this.open) {
      recording.tags.push({ name, attributes });
      recording.depth++;
    }
  }

  closed(): void {
    for (const recording of this.open) {
      recording.tags.push(null);
      recording.depth--;
    }
    this.open = this.open.filter(({ depth }) => depth > 0);
  }

  get(id: string): Recorded | undefined {
    return this.kept.get(id);
  }
}
