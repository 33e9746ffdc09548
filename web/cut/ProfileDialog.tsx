import { LINE_PURPOSES, type LinePurpose, type MachineProfile, PROFILES, profileSchema } from "@mend-joint/core/cut";
import { describeIssues } from "@mend-joint/core/piece";
import { Dialog } from "radix-ui";
import { useState } from "react";
import { removeProfile, saveProfile } from "../state/api";
import { fetchProfiles, useCutting } from "../state/cutting";
import { Button } from "../ui/Button";
import { Choice } from "../ui/Choice";
import { LengthField } from "../ui/LengthField";

const NAMES: Record<LinePurpose, string> = { cut: "Cut", score: "Score", engrave: "Engrave" };

/** A machine of the maker's own: how it tells lines apart, how large it is, what it takes. */
export function ProfileDialog({ profile, isOwn, onDone }: { profile: MachineProfile; isOwn: boolean; onDone(): void }) {
  const [draft, setDraft] = useState(profile);
  const [fault, setFault] = useState("");
  const set = (change: Partial<MachineProfile>) => setDraft((old) => ({ ...old, ...change }));
  const keep = async () => {
    const read = profileSchema.safeParse(draft);
    if (!read.success) return setFault(describeIssues(read.error));
    try {
      await saveProfile(read.data);
      await fetchProfiles();
      useCutting.setState({ profileId: read.data.id });
      onDone();
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  const remove = async () => {
    try {
      await removeProfile(draft.id);
      useCutting.setState({ profileId: PROFILES[0]!.id });
      await fetchProfiles();
      onDone();
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  return (
    <Dialog.Root open onOpenChange={(open) => !open && onDone()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-20 flex max-h-[92vh] w-[520px] -translate-x-1/2 -translate-y-1/2 flex-col gap-4 overflow-y-auto rounded-2xl bg-film p-6 shadow-xl"
        >
          <Dialog.Title className="font-display text-[20px] font-semibold">Your machine</Dialog.Title>
          <label className="block text-[13px] text-quiet">
            Name
            <input
              value={draft.name}
              maxLength={60}
              onChange={(event) => set({ name: event.target.value })}
              className="mt-0.5 w-full border-b border-quiet/50 bg-transparent py-1.5 text-[15px] text-ink outline-none focus:border-ink"
            />
          </label>
          <div className="grid grid-cols-2 gap-4">
            <LengthField
              label="Bed width"
              value={draft.bed.width}
              least={10}
              most={5000}
              step={10}
              onChange={(width) => set({ bed: { ...draft.bed, width } })}
            />
            <LengthField
              label="Bed height"
              value={draft.bed.height}
              least={10}
              most={5000}
              step={10}
              onChange={(height) => set({ bed: { ...draft.bed, height } })}
            />
          </div>
          <table className="text-[14px]">
            <thead className="text-left text-[13px] text-quiet">
              <tr>
                <th className="font-normal">Lines</th>
                <th className="font-normal">Colour</th>
                <th className="font-normal">Layer</th>
              </tr>
            </thead>
            <tbody>
              {[...LINE_PURPOSES].reverse().map((purpose) => {
                const look = draft.lines[purpose];
                const change = (next: Partial<typeof look>) =>
                  set({ lines: { ...draft.lines, [purpose]: { ...look, ...next } } });
                return (
                  <tr key={purpose}>
                    <td className="py-1">{NAMES[purpose]}</td>
                    <td className="py-1">
                      <input
                        type="color"
                        aria-label={`Colour of ${NAMES[purpose].toLowerCase()} lines`}
                        value={look.colour}
                        onChange={(event) => change({ colour: event.target.value })}
                        className="h-8 w-14"
                      />
                    </td>
                    <td className="py-1">
                      <input
                        aria-label={`Layer of ${NAMES[purpose].toLowerCase()} lines`}
                        value={look.layer}
                        maxLength={40}
                        onChange={(event) => change({ layer: event.target.value })}
                        className="figure w-full border-b border-quiet/50 bg-transparent py-1 outline-none focus:border-ink"
                      />
                    </td>
                  </tr>
                );
              })}
            </tbody>
          </table>
          <div className="grid grid-cols-2 gap-4">
            <Choice
              label="Engraving goes into the file as"
              value={draft.engraveAs}
              options={[
                { value: "fill", text: "filled areas" },
                { value: "line", text: "outlines" },
              ]}
              onChange={(engraveAs) => set({ engraveAs })}
            />
            <Choice
              label="Filled shapes"
              value={draft.fills}
              options={[
                { value: "engraved", text: "it engraves" },
                { value: "refused", text: "it refuses" },
              ]}
              onChange={(fills) => set({ fills, engraveAs: fills === "refused" ? "line" : draft.engraveAs })}
            />
            <Choice
              label="Cutting outside the line"
              value={draft.kerfBy}
              options={[
                { value: "file", text: "in the file" },
                { value: "machine", text: "by the machine" },
              ]}
              onChange={(kerfBy) => set({ kerfBy })}
            />
            <Choice
              label="In DXF it counts from"
              value={draft.origin}
              options={[
                { value: "top-left", text: "top left" },
                { value: "bottom-left", text: "bottom left" },
              ]}
              onChange={(origin) => set({ origin })}
            />
          </div>
          {fault && (
            <p role="alert" className="text-[13px] text-falls">
              {fault}
            </p>
          )}
          <div className="flex justify-end gap-2">
            {isOwn && (
              <Button look="quiet" className="mr-auto text-falls" onClick={() => void remove()}>
                Take it away
              </Button>
            )}
            <Button onClick={onDone}>Leave it</Button>
            <Button look="strong" onClick={() => void keep()}>
              Keep
            </Button>
          </div>
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
