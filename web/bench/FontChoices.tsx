import type { Word } from "@mend-joint/core/piece";
import { useEffect, useState } from "react";
import { letteringChoices } from "../workers/examiner";
import { changePart } from "./parts";

type Choices = Awaited<ReturnType<typeof letteringChoices>>;

/** Names of features as the OpenType specification has them, shortened. */
const FEATURE_NAMES: Record<string, string> = {
  liga: "ligatures",
  clig: "contextual ligatures",
  dlig: "more ligatures",
  hlig: "historical ligatures",
  calt: "contextual forms",
  swsh: "swashes",
  cswh: "contextual swashes",
  salt: "other forms",
  titl: "titling",
  hist: "historical forms",
  smcp: "small capitals",
  c2sc: "small capitals for capitals",
  onum: "old-style figures",
  lnum: "lining figures",
  tnum: "figures of one width",
  pnum: "figures of own width",
  frac: "fractions",
  ordn: "ordinals",
  zero: "slashed zero",
  kern: "kerning",
};

const nameOf = (tag: string) => FEATURE_NAMES[tag] ?? (tag.startsWith("ss") ? `set ${Number(tag.slice(2))}` : tag);

/** What the font itself leaves to choose: features that change this word, axes of a variable font. */
export function FontChoices({ word }: { word: Word }) {
  const [choices, setChoices] = useState<Choices>({ axes: [], features: [] });
  // biome-ignore lint/correctness/useExhaustiveDependencies: what there is to choose hangs on these alone
  useEffect(() => {
    let gone = false;
    letteringChoices(word).then(
      (found) => !gone && setChoices(found),
      () => {},
    );
    return () => {
      gone = true;
    };
  }, [word.font, word.text]);
  const { axes, features } = choices;
  return (
    <>
      {features.length > 0 && (
        <div>
          <span className="block text-[13px] text-quiet">The font’s own choices</span>
          <div className="mt-1 flex flex-wrap gap-1">
            {features.map(({ tag, usual }) => {
              const on = word.features[tag] === undefined ? usual : word.features[tag] > 0;
              return (
                <button
                  key={tag}
                  type="button"
                  aria-pressed={on}
                  title={tag}
                  onClick={() =>
                    changePart<Word>(word.id, (old) => ({ ...old, features: turnedOver(old.features, tag, usual, !on) }))
                  }
                  className="rounded-full border border-quiet/40 px-3 py-1 text-[13px] hover:border-ink aria-pressed:border-ink aria-pressed:bg-ink aria-pressed:text-film"
                >
                  {nameOf(tag)}
                </button>
              );
            })}
          </div>
        </div>
      )}
      {axes.map(({ tag, name, least, usual, most }) => {
        const value = word.axes[tag] ?? usual;
        return (
          <label key={tag} className="block text-[13px] text-quiet">
            <span className="flex justify-between">
              {name}
              <span className="figure text-ink">{Number(value.toFixed(1))}</span>
            </span>
            <input
              type="range"
              min={least}
              max={most}
              step={(most - least) / 100}
              value={value}
              className="mt-1 w-full accent-ink"
              onChange={(event) =>
                changePart<Word>(word.id, (old) => ({ ...old, axes: { ...old.axes, [tag]: Number(event.target.value) } }))
              }
            />
          </label>
        );
      })}
    </>
  );
}

/** Features that are as the font has them are not stored. */
function turnedOver(features: Word["features"], tag: string, usual: boolean, on: boolean): Word["features"] {
  const { [tag]: _, ...others } = features;
  return on === usual ? others : { ...others, [tag]: on ? 1 : 0 };
}
