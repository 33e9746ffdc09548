import { joinBoxes, type Region, regionBox } from "@mend-joint/core/geometry";
import { changeLetter, type Word } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { regionPath } from "../../stage/paths";
import { usePiece } from "../../state/piece";
import { letterforms } from "../../workers/examiner";

/** Height of a letter in the chooser, px. */
const HEIGHT = 46;

interface Form {
  form: string | undefined;
  region: Region;
}

/** The letter in the hand in each form that its font has for it, drawn as it would be cut. */
export function Letterforms({ word, letterKey }: { word: Word; letterKey: string }) {
  const [forms, setForms] = useState<Form[]>([]);
  const chosen = word.changes[letterKey]?.form;
  // biome-ignore lint/correctness/useExhaustiveDependencies: what the letters look like hangs on these alone
  useEffect(() => {
    let gone = false;
    letterforms(word, letterKey).then(
      (found) => !gone && setForms(found),
      () => !gone && setForms([]),
    );
    return () => {
      gone = true;
    };
  }, [word.text, word.font, letterKey]);
  if (forms.length < 2) return null;
  const box = joinBoxes(forms.map(({ region }) => regionBox(region)));
  const choose = (form: string | undefined) =>
    usePiece
      .getState()
      .change((piece) =>
        changeLetter(piece, word.id, letterKey, ({ form: _, ...old }) => (form === undefined ? old : { ...old, form })),
      );
  return (
    <div className="mt-3">
      <h4 className="text-[13px] text-quiet">Forms of this letter</h4>
      <div className="mt-1 flex flex-wrap gap-1">
        {forms.map(({ form, region }, i) => (
          <button
            key={form ?? "usual"}
            type="button"
            aria-pressed={form === chosen}
            aria-label={form === undefined ? "The usual form" : `Form ${i + 1} of ${forms.length}`}
            title={form === undefined ? "The usual form" : `Another form, ${i + 1} of ${forms.length}`}
            onClick={() => choose(form)}
            className={`rounded-lg border p-1.5 ${form === chosen ? "border-ink bg-film" : "border-rule hover:border-ink"}`}
          >
            {box && <Shape region={region} height={box.maxY - box.minY} top={box.maxY} />}
          </button>
        ))}
      </div>
    </div>
  );
}

function Shape({ region, height, top }: { region: Region; height: number; top: number }) {
  const box = regionBox(region);
  if (!box) return null;
  const scale = HEIGHT / height;
  return (
    <svg width={Math.max(8, (box.maxX - box.minX) * scale)} height={HEIGHT} aria-hidden="true" className="max-w-[90px]">
      <path
        d={regionPath(region)}
        transform={`scale(${scale} ${-scale}) translate(${-box.minX} ${-top})`}
        fillRule="evenodd"
        fill="var(--color-ink)"
      />
    </svg>
  );
}
