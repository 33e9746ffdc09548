import type { Piece, Word } from "@mend-joint/core/piece";
import { RadioGroup } from "radix-ui";
import { faceName, useFonts } from "../state/fonts";
import { changePart } from "./parts";

/** The maker's own words in every lettering there is. */
export function LetteringStep({ piece }: { piece: Piece }) {
  const fonts = useFonts();
  const words = piece.parts.filter((part): part is Word => part.kind === "word");
  return (
    <div className="flex flex-col gap-6">
      {words.map((word, i) => (
        <div key={word.id}>
          {words.length > 1 && <h3 className="mb-1 text-[13px] text-quiet">Line {i + 1}</h3>}
          <RadioGroup.Root
            value={word.font}
            aria-label={`Lettering of ${word.text || `line ${i + 1}`}`}
            onValueChange={(font) => changePart<Word>(word.id, (old) => ({ ...old, font }))}
            className="flex flex-col gap-1"
          >
            {fonts.map((font) => (
              <RadioGroup.Item
                key={font.id}
                value={font.id}
                className="-mx-2 rounded-xl border border-transparent px-3 py-2 text-left hover:bg-ink/4 data-[state=checked]:border-ink data-[state=checked]:bg-film"
              >
                <span className="block h-[42px] truncate text-[25px] leading-[42px]" style={{ fontFamily: faceName(font.id) }}>
                  {word.text || "Skerrow"}
                </span>
                <span className="flex justify-between text-[12px] text-quiet">
                  <span>{font.name}</span>
                  <span>{font.style}</span>
                </span>
              </RadioGroup.Item>
            ))}
          </RadioGroup.Root>
        </div>
      ))}
      {words.length === 0 && <p className="text-[13px] text-quiet">Add a word in step 1 first.</p>}
    </div>
  );
}
