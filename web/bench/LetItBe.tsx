import { useId, useState } from "react";
import { Button } from "../ui/Button";

const LONGEST = 200;

/** The maker knows better: the finding is let be, with a reason that is kept with the piece. */
export function LetItBe({ onAccept }: { onAccept(reason: string): void }) {
  const [asking, setAsking] = useState(false);
  const [reason, setReason] = useState("");
  const id = useId();
  if (!asking) {
    return (
      <Button look="quiet" className="ml-6 h-8 px-3 text-[13px]" onClick={() => setAsking(true)}>
        Let it be …
      </Button>
    );
  }
  return (
    <form
      className="mt-1 flex flex-col gap-1 px-3 pl-10"
      onSubmit={(event) => {
        event.preventDefault();
        onAccept(reason);
      }}
      onKeyDown={(event) => event.key === "Escape" && setAsking(false)}
    >
      <label htmlFor={id} className="text-[13px] text-quiet">
        Why is it all right?
      </label>
      <input
        id={id}
        autoFocus
        value={reason}
        maxLength={LONGEST}
        placeholder="glued on a backing"
        onChange={(event) => setReason(event.target.value)}
        className="border-b border-quiet/50 bg-transparent py-1 text-[14px] outline-none focus:border-ink"
      />
      <div className="mt-1 flex gap-1">
        <Button type="submit" className="h-8 px-3 text-[13px]">
          Let it be
        </Button>
        <Button look="quiet" className="h-8 px-3 text-[13px]" onClick={() => setAsking(false)}>
          Cancel
        </Button>
      </div>
    </form>
  );
}
