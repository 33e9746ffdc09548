import { hasWork } from "@mend-joint/core/cut";
import type { FileFormat, MadeFile } from "@mend-joint/core/formats";
import { slug } from "@mend-joint/core/formats";
import type { Piece } from "@mend-joint/core/piece";
import { Check as Tick } from "lucide-react";
import { Checkbox } from "radix-ui";
import { useState } from "react";
import { toast } from "sonner";
import { sendToCutter } from "../state/api";
import { choicesOf, profileOf, useCutting } from "../state/cutting";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { download, rasterise } from "../ui/download";
import type { CutSheet } from "../workers/cutting";
import { allFiles, cutFile, zipInWorker } from "../workers/examiner";

const FILES: { format: FileFormat; text: string; note: string }[] = [
  { format: "svg", text: "SVG", note: "true curves, in mm" },
  { format: "dxf", text: "DXF", note: "layers, in mm" },
  { format: "pdf", text: "PDF", note: "layers, true size" },
  { format: "pattern", text: "Paper pattern", note: "PDF for the saw" },
  { format: "picture", text: "Picture", note: "PNG for a listing" },
];

const asPng = (name: string) => name.replace(/\.svg$/, ".png");
/** What the maker should know about a file. */
const tell = (files: readonly Pick<MadeFile, "name" | "notes">[]) => {
  for (const { name, notes } of files) for (const note of notes) toast(`${name}: ${note}`);
};

interface Props {
  piece: Piece;
  sheet: CutSheet | null;
  /** False while a newer sheet is being drawn up: nothing is given away by what an older one found. */
  current: boolean;
  onTrial(): void;
}

/** Files to take along, and the way to the trial cutter; not past something that falls, unless the maker says so. */
export function Downloads({ piece, sheet, current, onTrial }: Props) {
  /** What the maker wants cut although something stands in its way; a changed piece is asked about again. */
  const [agreed, setAgreed] = useState<Piece | null>(null);
  const anyway = agreed === piece;
  const [busy, setBusy] = useState(false);
  const { curves, source, without } = useCutting();
  const stops = sheet?.checks.some(({ means }) => means === "stop") ?? false;
  const empty = !sheet || !hasWork(sheet.plan);
  const ready = current && !empty && !busy && (!stops || anyway);
  const choices = () => choicesOf(useCutting.getState(), piece);

  const attempt = async (work: () => Promise<void>) => {
    setBusy(true);
    try {
      await work();
    } catch (error) {
      toast.error((error as Error).message);
    }
    setBusy(false);
  };
  const take = (format: FileFormat) =>
    attempt(async () => {
      const file = await cutFile(piece, format, choices());
      tell([file]);
      if (format !== "picture") download(file.name, file.type, file.bytes);
      else download(asPng(file.name), "image/png", await rasterise(file.bytes));
    });
  const takeAll = () =>
    attempt(async () => {
      const files = await allFiles(piece, ["svg", "dxf", "pdf", "pattern", "picture"], choices());
      tell(files);
      const last = files.map(async ({ name, bytes }, i) =>
        FILES[i]!.format === "picture"
          ? { name: asPng(name), bytes: new Uint8Array(await (await rasterise(bytes)).arrayBuffer()) }
          : { name, bytes },
      );
      const bytes = await zipInWorker(await Promise.all(last));
      download(`${slug(piece.name)}.zip`, "application/zip", bytes);
    });
  const send = () =>
    attempt(async () => {
      const file = await cutFile(piece, "svg", choices());
      await sendToCutter(piece.name, file, profileOf(useCutting.getState()), piece.stock);
      onTrial();
    });

  return (
    <section aria-label="Take it along" className="flex flex-col gap-3 border-t border-rule px-5 py-4">
      <h2 className="font-display text-[17px] font-semibold">Take it along</h2>
      {stops && (
        <label className="flex items-start gap-2 text-[13px]">
          <Checkbox.Root
            checked={anyway}
            onCheckedChange={(next) => setAgreed(next === true ? piece : null)}
            className="mt-0.5 grid size-4 shrink-0 place-items-center rounded border border-ink data-[state=checked]:bg-ink data-[state=checked]:text-film"
          >
            <Checkbox.Indicator>
              <Tick size={12} strokeWidth={3} />
            </Checkbox.Indicator>
          </Checkbox.Root>
          Something stands in the way above. Cut it all the same.
        </label>
      )}
      {sheet && empty && without.length > 0 && (
        <p className="text-[13px] text-weak">All its lines are left out. Switch some on to have a file.</p>
      )}
      <ul className="flex flex-col">
        {FILES.map(({ format, text, note }) => (
          <li key={format}>
            <button
              type="button"
              disabled={!ready}
              onClick={() => void take(format)}
              className="flex w-full items-baseline justify-between border-b border-rule py-1.5 text-left text-[14px] hover:bg-ink/5 disabled:cursor-default disabled:opacity-40"
            >
              <span className="font-medium underline-offset-4">{text}</span>
              <span className="text-[12px] text-quiet">{note}</span>
            </button>
          </li>
        ))}
        <li>
          <button
            type="button"
            disabled={!ready}
            onClick={() => void takeAll()}
            className="flex w-full items-baseline justify-between py-1.5 text-left text-[14px] hover:bg-ink/5 disabled:cursor-default disabled:opacity-40"
          >
            <span className="font-medium">All of them</span>
            <span className="text-[12px] text-quiet">in one ZIP</span>
          </button>
        </li>
      </ul>
      <details className="text-[13px]">
        <summary className="cursor-pointer text-quiet hover:text-ink">More about the files</summary>
        <div className="mt-2 flex flex-col gap-2">
          <Choice
            label="DXF has"
            value={curves}
            options={[
              { value: "curves", text: "arcs and splines" },
              { value: "polylines", text: "fine polylines" },
            ]}
            onChange={(next) => useCutting.setState({ curves: next })}
          />
          <Choice
            label="SVG carries"
            value={source ? "piece" : "lines"}
            options={[
              { value: "lines", text: "lines alone" },
              { value: "piece", text: "the piece too" },
            ]}
            onChange={(next) => useCutting.setState({ source: next === "piece" })}
          />
        </div>
      </details>
      <Button look="strong" disabled={!ready} onClick={() => void send()}>
        {busy ? "One moment …" : "Send to the trial cutter"}
      </Button>
    </section>
  );
}
