import { type MachineProfile, PROFILES } from "@mend-joint/core/cut";
import { formatLength, type Piece } from "@mend-joint/core/piece";
import { type CutChoiceKey, cutSentence } from "@mend-joint/core/wording";
import { useState } from "react";
import { WhereCutRuns } from "../bench/WhereCutRuns";
import { useBench } from "../state/bench";
import { profileOf, useCutting } from "../state/cutting";
import { Button } from "../ui/Button";
import { Pick } from "../ui/Pick";
import { Sentence } from "../ui/Sentence";
import type { CutSheet } from "../workers/cutting";
import { duration } from "./duration";
import { ProfileDialog } from "./ProfileDialog";
import { PURPOSES, PurposeRow } from "./PurposeRow";
import { TabFields } from "./TabFields";

/** Which machine, which lines, and where the cut runs. */
export function MachineForm({ piece, sheet }: { piece: Piece; sheet: CutSheet | null }) {
  const units = useBench((state) => state.units);
  const state = useCutting();
  const { own, tabs, tabWidth } = state;
  const profile = profileOf(state);
  const [editing, setEditing] = useState<MachineProfile | null>(null);
  const isOwn = own.some(({ id }) => id === profile.id);
  const edit = (key: CutChoiceKey) => {
    switch (key) {
      case "machine":
        return (
          <>
            <Pick
              label="Machine"
              value={profile.id}
              options={[...PROFILES, ...own].map(({ id, name }) => ({ value: id, text: name }))}
              onChange={(profileId) => useCutting.setState({ profileId })}
            />
            <p className="figure text-[12px] text-quiet">
              bed {formatLength(profile.bed.width, units, 0)} × {formatLength(profile.bed.height, units, 0)}
            </p>
            <Button
              look="quiet"
              className="-ml-3 h-8 self-start px-3"
              onClick={() => setEditing(isOwn ? profile : { ...profile, id: freshId(), name: `${profile.name} (mine)` })}
            >
              {isOwn ? "Change this machine" : "Make one of your own from it"}
            </Button>
          </>
        );
      case "cut":
        return <WhereCutRuns piece={piece} />;
      case "tabs":
        return <TabFields />;
    }
  };
  return (
    <div className="flex flex-col gap-6">
      <section className="flex flex-col gap-1">
        <Sentence
          about="the way to the machine"
          subject="It"
          choices={cutSentence(piece, { machine: profile.name, tabs, tabWidth }, units)}
          edit={edit}
        />
        <p className="text-[12px] text-quiet">{kerfSaid(piece, profile, (mm) => formatLength(mm, units, 2))}</p>
      </section>
      <section>
        <h2 className="font-display text-[16px] font-semibold">What the lines are for</h2>
        <ul className="mt-2 flex flex-col">
          {PURPOSES.map((purpose) => (
            <PurposeRow key={purpose.value} purpose={purpose} profile={profile} work={sheet?.effort[purpose.value]} />
          ))}
        </ul>
        {sheet && (
          <p className="figure mt-3 text-[13px]" data-testid="effort">
            {duration(sheet.effort.seconds)} <span className="text-quiet">in all,</span> {sheet.effort.pierces}{" "}
            <span className="text-quiet">{sheet.effort.pierces === 1 ? "pierce" : "pierces"}</span>
          </p>
        )}
      </section>
      {editing && <ProfileDialog profile={editing} isOwn={isOwn} onDone={() => setEditing(null)} />}
    </div>
  );
}

const freshId = () => `own-${Date.now().toString(36)}`;

function kerfSaid({ stock, cut }: Piece, { kerfBy }: MachineProfile, say: (mm: number) => string): string {
  if (cut === "on-line") return `The cut is ${say(stock.kerf)} wide; half of it is lost on each side of the line.`;
  return kerfBy === "file"
    ? `Outlines are grown by ${say(stock.kerf / 2)}, holes shrink by as much: the piece comes out as drawn.`
    : "The machine makes allowance itself; the file has the outlines as drawn.";
}
