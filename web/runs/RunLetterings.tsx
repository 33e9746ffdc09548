import { type FontTally, rankFonts } from "@mend-joint/core/runs";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { toast } from "sonner";
import { faceName, loadFace, useFonts } from "../state/fonts";
import { changeRun, type FollowedRun, rankLetterings, stopRanking } from "../state/runs";
import { Button } from "../ui/Button";
import { Pick } from "../ui/Pick";

const AS_DESIGNED = "";
const failed = (error: Error) => void toast.error(error.message);

/** The lettering of all names, and how many of them would hold in each other one. */
export function RunLetterings({ run }: { run: FollowedRun["run"] }) {
  const fonts = useFonts();
  const [open, setOpen] = useState(false);
  const { font } = run.choices;
  const choose = (id: string) => void changeRun(run.id, { font: id === AS_DESIGNED ? null : id }).catch(failed);
  return (
    <div className="flex flex-col items-start gap-2">
      <div className="w-full">
        <Pick
          label="Lettering of all names"
          value={font ?? AS_DESIGNED}
          options={[
            { value: AS_DESIGNED, text: "as the design has it" },
            ...fonts.map(({ id, name }) => ({ value: id, text: name })),
          ]}
          onChange={choose}
        />
      </div>
      <Button
        look="quiet"
        className="-ml-3"
        onClick={() => {
          setOpen(true);
          if (!run.ranking) void rankLetterings(run.id).catch(failed);
        }}
      >
        Which lettering suits them all?
      </Button>
      {open && <Letterings run={run} onChoose={choose} onDone={() => setOpen(false)} />}
    </div>
  );
}

interface Props {
  run: FollowedRun["run"];
  onChoose(font: string): void;
  onDone(): void;
}

function Letterings({ run: { id, ranking, choices, name }, onChoose, onDone }: Props) {
  const fonts = new Map(useFonts().map((font) => [font.id, font.name]));
  const ranked = rankFonts(ranking?.fonts ?? {});
  const under = ranking !== null && ranked.length < ranking.of;
  const sample = name.replace(/ and [\d,]+ more$/, "");
  const close = () => {
    // What was not finished is begun anew the next time.
    if (under) void stopRanking(id).catch(failed);
    onDone();
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && close()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content className="fixed top-1/2 left-1/2 z-20 flex max-h-[92dvh] w-[min(620px,94vw)] -translate-x-1/2 -translate-y-1/2 flex-col gap-3 rounded-2xl bg-film p-6 shadow-xl">
          <Dialog.Title className="font-display text-[20px] font-semibold">Which lettering suits them all</Dialog.Title>
          <Dialog.Description className="text-[13px] text-quiet" aria-live="polite">
            {ranking === null
              ? "The names are being counted …"
              : `${ranking.names.toLocaleString("en")} ${ranking.names === 1 ? "name" : "different names"} in each, before anything is mended. ${
                  under ? `${ranked.length} of ${ranking.of} letterings are tried.` : `All ${ranking.of} are tried.`
                }`}
          </Dialog.Description>
          {ranking && (
            <progress
              className={`h-1 w-full accent-ink ${under ? "" : "invisible"}`}
              aria-label="Letterings tried"
              value={ranked.length}
              max={ranking.of}
            />
          )}
          <ul className="min-h-[280px] overflow-y-auto">
            {ranked.map(([font, tally]) => (
              <li key={font}>
                <Lettering
                  font={font}
                  name={fonts.get(font) ?? font}
                  sample={sample}
                  tally={tally}
                  names={ranking!.names}
                  on={choices.font === font}
                  onPress={() => {
                    onChoose(font);
                    close();
                  }}
                />
              </li>
            ))}
          </ul>
          <Button look="plain" className="shrink-0 self-end" onClick={close}>
            Close
          </Button>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}

interface LetteringProps {
  font: string;
  name: string;
  sample: string;
  tally: FontTally;
  names: number;
  on: boolean;
  onPress(): void;
}

function Lettering({ font, name, sample, tally, names, on, onPress }: LetteringProps) {
  useEffect(() => loadFace(font), [font]);
  const fallen = tally.falls + tally.notMade;
  const others = [
    ...(tally.weak > 0 ? [`${tally.weak} weak`] : []),
    ...(tally.falls > 0 ? [`${tally.falls} ${tally.falls === 1 ? "falls" : "fall"}`] : []),
    ...(tally.notMade > 0 ? [`${tally.notMade} cannot be made`] : []),
  ];
  const share = (count: number) => `${(100 * count) / Math.max(1, names)}%`;
  return (
    <button
      type="button"
      aria-pressed={on}
      onClick={onPress}
      className="grid w-full grid-cols-[minmax(0,1fr)_190px] items-center gap-4 border-b border-rule px-2 py-2 text-left hover:bg-ink/5 aria-pressed:bg-ground"
    >
      <span className="min-w-0">
        <span
          className="block truncate text-[24px] leading-[1.3]"
          style={{ fontFamily: `"${faceName(font)}"` }}
          aria-hidden="true"
        >
          {sample}
        </span>
        <span className="block truncate text-[12px] text-quiet">{name}</span>
      </span>
      <span className="text-[13px]">
        <span className="font-medium">
          {tally.holds} of {names} hold
        </span>
        <span className="mt-1 flex h-1.5 overflow-hidden rounded-full bg-ink/10" aria-hidden="true">
          <span className="bg-holds" style={{ width: share(tally.holds) }} />
          <span className="bg-weak/70" style={{ width: share(tally.weak) }} />
          <span className="bg-falls/80" style={{ width: share(fallen) }} />
        </span>
        {others.length > 0 && <span className="block text-[12px] text-quiet">{others.join(", ")}</span>}
      </span>
    </button>
  );
}
