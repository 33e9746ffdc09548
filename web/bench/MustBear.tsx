import { type Hand, type HeldBy, hasGrain, type Piece, pieceBounds } from "@mend-joint/core/piece";
import { type Forces, forcesOf, type Held } from "@mend-joint/core/strength";
import { describeHeldBy, FORCE_NAMES } from "@mend-joint/core/wording";
import { usePiece } from "../state/piece";
import { Choice } from "../ui/Choice";
import { NumberField } from "../ui/NumberField";
import { Pick } from "../ui/Pick";
import { Toggle } from "../ui/Toggle";

const set = (change: Hand) => usePiece.getState().change((piece) => ({ ...piece, hand: { ...piece.hand, ...change } }));

const grainIsAslant = ({ grain = 0 }: Piece) => ![0, 90].includes(grain);

/** What the piece must bear, how it is held then, and whether that counts for the verdict. */
export function MustBear({ piece, held }: { piece: Piece; held: Held }) {
  const forces = forcesOf(piece.hand);
  return (
    <div className="mt-3 flex flex-col gap-3 rounded-xl bg-film px-3 py-2.5">
      <Toggle
        label="It must bear this"
        note="what breaks in the hand is weak then, and mended with the rest"
        on={piece.hand?.rule === true}
        onChange={(rule) => set({ rule })}
      />
      {hasGrain(piece.stock) && (
        <Choice
          label="The grain runs"
          value={String(piece.grain ?? 0)}
          options={[
            { value: "0", text: "along the lettering" },
            { value: "90", text: "upright" },
            ...(grainIsAslant(piece) ? [{ value: String(piece.grain), text: `at ${piece.grain}°` }] : []),
          ]}
          onChange={(next) => usePiece.getState().change((before) => ({ ...before, grain: Number(next) }))}
        />
      )}
      <details>
        <summary className="cursor-pointer rounded text-[13px] text-quiet hover:text-ink">
          {held.possible.length > 1 ? "How it is held, and how hard hands are" : "How hard hands are"}
        </summary>
        <div className="mt-3 grid grid-cols-2 gap-3">
          {held.possible.length > 1 && (
            <div className="col-span-2">
              <Pick<HeldBy>
                label="Held by"
                value={held.by}
                options={held.possible.map((value) => ({ value, text: describeHeldBy(value) }))}
                onChange={(by) => set({ held: by })}
              />
            </div>
          )}
          {asked(held).map((force) => (
            <NumberField
              key={force}
              label={FORCE_NAMES[force]}
              unit="N"
              value={forces[force]}
              {...pieceBounds("hand", force)}
              onChange={(newton) => set({ [force]: newton })}
            />
          ))}
        </div>
        <p className="mt-1.5 text-[12px] text-quiet">One newton is what 100 g weigh. These are assumptions: put in your own.</p>
      </details>
    </div>
  );
}

/** Nobody plants what has no stick, or tugs what has no ring. */
const asked = ({ by }: Held): (keyof Forces)[] => [
  "finger",
  ...(by === "stick" ? (["planting"] as const) : []),
  ...(by === "loop" ? (["tugging"] as const) : []),
];
