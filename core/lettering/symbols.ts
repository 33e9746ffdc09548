/**
 * Symbols that stand among the letters of a font: ornaments, and outlines of the maker's own.
 */
import QuickLRU from "quick-lru";
import { type Box, type Region, regionBox, transformRegion } from "../geometry";
import { DRAWN, drawnOutline, keepsHoleFree, ornament } from "../ornaments";
import { SYMBOLS, type SymbolName, symbolOf, type Word } from "../piece";
import { LetterOutline } from "./letterOutline";
import { type LetterShape, shapeIslands, shapeKey, shapeMatrix } from "./shape";

/** Empty space on either side of a symbol, as a share of the height of capitals. */
const BEARING = 0.06;
/** The maker's own silhouettes, and outlines in some sizes, that are remembered. */
const SILHOUETTES = 100;
const OUTLINES = 500;

export interface TextSymbol {
  /** What it is called. */
  name: string;
  /** Its hole is there to be used. */
  keepsHole: boolean;
  /** In font units: extent from the pen, and how far the pen goes on. */
  extent: Box;
  advance: number;
  outline(shape: LetterShape): LetterOutline;
}

export class Symbols {
  readonly #silhouettes = new QuickLRU<string, Region>({ maxSize: SILHOUETTES });
  readonly #outlines = new QuickLRU<string, LetterOutline>({ maxSize: OUTLINES });

  /** @param capHeight of the font, in its units: as high symbols are drawn */
  constructor(private readonly capHeight: number) {}

  /** The symbol that stands for a letter of a word; `undefined` where it is a letter. */
  in(word: Word, letter: string): TextSymbol | undefined {
    const own = word.drawn[letter];
    if (own) {
      const silhouette = this.#silhouette(own.outline);
      return silhouette.length > 0 ? this.#place(own.name, `own ${own.outline}`, silhouette, false) : undefined;
    }
    const name = symbolOf(letter);
    return name && this.#place(name, name, ornament(name), keepsHoleFree(name));
  }

  /** What stands between the words of a line in the place of blanks. */
  between(word: Word): TextSymbol | undefined {
    return word.separator === undefined ? undefined : this.in(word, SYMBOLS[word.separator as SymbolName] ?? word.separator);
  }

  #silhouette(outline: string): Region {
    let silhouette = this.#silhouettes.get(outline);
    if (!silhouette) {
      silhouette = drawnOutline(outline);
      this.#silhouettes.set(outline, silhouette);
    }
    return silhouette;
  }

  #place(name: string, key: string, silhouette: Region, keepsHole: boolean): TextSymbol {
    const unit = this.capHeight / DRAWN;
    const box = regionBox(silhouette)!;
    const bearing = BEARING * this.capHeight;
    const left = bearing - box.minX * unit;
    const extent = {
      minX: bearing,
      maxX: bearing + (box.maxX - box.minX) * unit,
      minY: box.minY * unit,
      maxY: box.maxY * unit,
    };
    const draw = (shape: LetterShape) => {
      const [a, , c, d] = shapeMatrix(shape);
      return shapeIslands(transformRegion(silhouette, [a * unit, 0, c * unit, d * unit, left * a, 0]), shape);
    };
    return {
      name,
      keepsHole,
      extent,
      advance: extent.maxX + bearing,
      outline: (shape) => {
        const full = `${key} ${shapeKey(shape)}`;
        let outline = this.#outlines.get(full);
        if (!outline) {
          outline = new LetterOutline(full, draw(shape));
          this.#outlines.set(full, outline);
        }
        return outline;
      },
    };
  }
}
