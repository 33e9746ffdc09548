import { type Anchor, placeOfEnd } from "@mend-joint/core/piece";
import { useBench } from "../../state/bench";
import { Pick } from "../../ui/Pick";

interface Props {
  at: Anchor;
  onChange(at: Anchor): void;
}

const NOTHING = "";

/** The letter that an ornament or a drawing goes along with; it stays where it is when that is changed. */
export function Follows({ at, onChange }: Props) {
  const words = useBench((state) => state.examination?.words);
  const letters = (words ?? []).flatMap(({ wordId, letters }) =>
    letters
      .filter(({ text, symbol }) => symbol || text.trim() !== "")
      .map((letter) => ({ wordId, key: letter.key, text: letter.symbol ?? letter.text, origin: letter.origin })),
  );
  const place = placeOfEnd(at, words ?? []);
  if (letters.length === 0 || !place) return null;
  const nameOf = ({ wordId, key }: { wordId: string; key: string }) => `${wordId} ${key}`;
  const choose = (value: string) => {
    const home = letters.find((letter) => nameOf(letter) === value);
    const { x, y } = home ? { x: place.x - home.origin.x, y: place.y - home.origin.y } : place;
    const near = (mm: number) => Math.round(mm * 100) / 100;
    onChange({ x: near(x), y: near(y), ...(home && { letter: { wordId: home.wordId, key: home.key } }) });
  };
  return (
    <Pick
      label="It goes along with"
      value={at.letter ? nameOf(at.letter) : NOTHING}
      options={[
        { value: NOTHING, text: "nothing: it stays where it is" },
        ...letters.map((letter) => ({ value: nameOf(letter), text: `the ${letter.text}` })),
      ]}
      onChange={choose}
    />
  );
}
