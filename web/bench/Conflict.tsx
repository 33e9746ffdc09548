import { AlertDialog } from "radix-ui";
import { useState } from "react";
import { toast } from "sonner";
import { keepMine, takeTheirs, useSaving } from "../state/saving";
import { Button } from "../ui/Button";

/** Two windows, one piece: both versions are there, and the maker says which goes on. */
export function Conflict() {
  const { theirs, status } = useSaving();
  const [fault, setFault] = useState("");
  if (status !== "stale" || !theirs) return null;
  const at = new Date(theirs.updatedAt).toLocaleTimeString([], { hour: "2-digit", minute: "2-digit" });
  const take = async (copy: boolean) => {
    try {
      const made = await takeTheirs(copy);
      if (made) toast(`Yours is kept as “${made.piece.name}” on the rack.`);
    } catch (error) {
      setFault((error as Error).message);
    }
  };
  return (
    <AlertDialog.Root open>
      <AlertDialog.Portal>
        <AlertDialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <AlertDialog.Content className="fixed top-1/2 left-1/2 z-20 w-[min(460px,92vw)] -translate-x-1/2 -translate-y-1/2 rounded-2xl bg-film p-6 shadow-xl">
          <AlertDialog.Title className="font-display text-[22px] font-semibold">
            This piece was changed in another window
          </AlertDialog.Title>
          <AlertDialog.Description className="mt-2 text-quiet">
            The other one was saved at {at}. Your changes here are not saved yet, and nothing was overwritten. Which one goes on?
          </AlertDialog.Description>
          {fault && (
            <p role="alert" className="mt-2 text-falls">
              {fault}
            </p>
          )}
          <div className="mt-5 flex flex-col gap-2">
            <Button look="strong" onClick={() => void take(true)}>
              Take the other, keep mine as a copy
            </Button>
            <Button onClick={() => void keepMine()}>Save mine over it</Button>
            <Button onClick={() => void take(false)}>Take the other, drop mine</Button>
          </div>
        </AlertDialog.Content>
      </AlertDialog.Portal>
    </AlertDialog.Root>
  );
}
