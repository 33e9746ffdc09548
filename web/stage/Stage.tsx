/**
 * The board that the piece lies on: how it is seen, zoomed and moved, and what stands around it.
 */
import type { Piece } from "@mend-joint/core/piece";
import { sheetOf } from "@mend-joint/core/report";
import { Maximize, Minus, Plus } from "lucide-react";
import { type ReactNode, useCallback, useEffect, useMemo, useRef, useState } from "react";
import { useBench } from "../state/bench";
import { isTyping } from "../ui/typing";
import { useSize } from "../ui/useSize";
import { FallReport } from "./FallTest";
import { FinishedSize } from "./FinishedSize";
import { HandCard } from "./HandCard";
import { legendHeight } from "./Legend";
import { LoadsLegend } from "./Loads";
import { MaterialPattern } from "./materials";
import { PieceDrawing } from "./PieceDrawing";
import { Rulers } from "./Rulers";
import { useHand } from "./useHand";
import { fitView, type View, zoomAt } from "./view";
import { WidthsLegend } from "./Widths";

interface Props {
  piece: Piece;
  /** The choices of what is in the hand, shown beside it. */
  beside?: ReactNode;
}

export function Stage({ piece, beside }: Props) {
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const examination = useBench((state) => state.examination);
  const units = useBench((state) => state.units);
  const place = useBench((state) => state.place);
  const [view, setView] = useState<View>({ x: 0, y: 0, scale: 3 });
  /** Until the maker zooms or pans, the stage follows the size of the piece. */
  const [following, setFollowing] = useState(true);
  const show = useBench((state) => state.show);

  const box = useMemo(() => (examination ? sheetOf(piece, examination).box : null), [examination, piece]);
  const fitted = useCallback(
    () => fitView(box, size, undefined, show === "material" ? 0 : legendHeight(size.width)),
    [box, size, show],
  );
  const fit = useCallback(() => {
    setFollowing(true);
    setView(fitted());
  }, [fitted]);

  const moving = useBench((state) => state.move !== null);
  useEffect(() => {
    if (following && !moving && size.width > 0) setView(fitted());
  }, [following, moving, size, fitted]);

  useEffect(() => {
    if (!place || size.width === 0) return;
    setFollowing(false);
    setView({ x: place.x, y: place.y, scale: Math.min(size.width, size.height) / place.around });
  }, [place, size]);

  const zoom = useCallback(
    (factor: number, at = { x: size.width / 2, y: size.height / 2 }) => {
      setFollowing(false);
      setView((old) => zoomAt(old, size, at, factor));
    },
    [size],
  );

  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (isTyping(event.target) || event.ctrlKey || event.metaKey || event.altKey) return;
      if (event.key === "0") fit();
      else if (event.key === "+" || event.key === "=") zoom(1.4);
      else if (event.key === "-") zoom(1 / 1.4);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [fit, zoom]);

  useHand({
    frame,
    view,
    size,
    zoom,
    pan: (dx, dy) => {
      setFollowing(false);
      setView((old) => ({ ...old, x: old.x - dx / old.scale, y: old.y + dy / old.scale }));
    },
  });

  return (
    <div className="@container relative min-h-0 flex-1 overflow-hidden bg-film">
      <div ref={frame} className="absolute inset-0 touch-none select-none" data-testid="stage">
        <svg
          width={size.width}
          height={size.height}
          className="block"
          role="group"
          aria-label={`${piece.name}, as it will be cut`}
        >
          <defs>
            <MaterialPattern id="sheet" sheet={piece.stock} />
          </defs>
          {examination && size.width > 0 && <PieceDrawing examination={examination} piece={piece} view={view} size={size} />}
          <Rulers view={view} size={size} units={units} />
        </svg>
      </div>
      {examination && !box && (
        <p className="pointer-events-none absolute inset-x-0 top-1/2 -translate-y-1/2 px-10 text-center font-display text-[22px] text-quiet">
          Type a word in step 1, and it will lie here.
        </p>
      )}
      {examination && beside && (
        <HandCard examination={examination} view={view} size={size}>
          {beside}
        </HandCard>
      )}
      {examination && <FallReport examination={examination} />}
      {examination?.box && <FinishedSize piece={piece} box={examination.box} />}
      {show !== "material" && examination && (
        <div className="absolute top-8 right-3 left-9 flex justify-end">
          {show === "widths" ? <WidthsLegend leastWidth={examination.leastWidth} units={units} /> : <LoadsLegend />}
        </div>
      )}
      <div className="absolute right-3 bottom-3 flex items-center gap-1">
        <StageSwitch
          pressed={show === "widths"}
          title="Show how wide every stroke is"
          onClick={() => useBench.setState({ show: show === "widths" ? "material" : "widths" })}
        >
          Widths
        </StageSwitch>
        <StageSwitch
          pressed={show === "loads"}
          title="Show what every letter takes before it breaks"
          onClick={() => useBench.setState({ show: show === "loads" ? "material" : "loads", selection: null })}
        >
          Load test
        </StageSwitch>
        <StageSwitch
          title="Lift the piece by its holder and shake it"
          onClick={() => {
            fit();
            useBench.setState(({ fallTest }) => ({ fallTest: fallTest + 1, selection: null }));
          }}
        >
          Fall test
        </StageSwitch>
        <StageButton label="Smaller" onClick={() => zoom(1 / 1.4)}>
          <Minus size={16} />
        </StageButton>
        <StageButton label="Show all of the piece" onClick={fit}>
          <Maximize size={15} />
        </StageButton>
        <StageButton label="Larger" onClick={() => zoom(1.4)}>
          <Plus size={16} />
        </StageButton>
      </div>
    </div>
  );
}

function StageSwitch({ pressed, ...props }: { pressed?: boolean; title: string; onClick(): void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-pressed={pressed}
      className={`h-9 rounded-full border px-2.5 text-[13px] whitespace-nowrap @[480px]:px-4 @[480px]:text-[14px] ${pressed ? "border-ink bg-ink text-film" : "border-rule bg-film text-quiet hover:border-ink hover:text-ink"}`}
      {...props}
    />
  );
}

function StageButton({ label, ...props }: { label: string; onClick(): void; children: ReactNode }) {
  return (
    <button
      type="button"
      aria-label={label}
      title={label}
      className="grid size-9 place-items-center rounded-full border border-rule bg-film text-quiet hover:border-ink hover:text-ink"
      {...props}
    />
  );
}
