import { Keyboard, X } from "lucide-react";
import { Dialog } from "radix-ui";
import { useEffect, useState } from "react";
import { isTyping } from "../ui/typing";

const KEYS: readonly { about: string; keys: readonly { press: string; does: string }[] }[] = [
  {
    about: "The piece",
    keys: [
      { press: "Ctrl Z", does: "undo" },
      { press: "Ctrl Shift Z", does: "do it again" },
      { press: "0", does: "show all of the piece" },
      { press: "+  −", does: "nearer, farther" },
    ],
  },
  {
    about: "What is in the hand",
    keys: [
      { press: "arrows", does: "move it 0.1 mm; with Shift 1 mm" },
      { press: "Shift press", does: "take one letter more" },
      { press: "Alt press", does: "take the whole line" },
      { press: "Ctrl drag", does: "straight, by whole millimetres; turns by 15°" },
      { press: "letters", does: "typed after the letter in the hand" },
      { press: "Backspace", does: "take the letter out; remove the holder" },
      { press: "Escape", does: "let go" },
    ],
  },
  {
    about: "Ends of ties, points of curves",
    keys: [
      { press: "Tab", does: "to the next one" },
      { press: "arrows", does: "move it 0.1 mm; with Shift 1 mm" },
      { press: "Delete", does: "take the point out of the curve" },
    ],
  },
  {
    about: "The chain of letters",
    keys: [
      { press: "Tab", does: "to the chain and out of it" },
      { press: "← →", does: "from letter to letter; Home and End to its ends" },
      { press: "Enter", does: "take the letter" },
    ],
  },
];

/** The keys of the bench, shown by a press or by "?". */
export function Keys() {
  const [open, setOpen] = useState(false);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "?" && !isTyping(event.target) && !event.defaultPrevented) setOpen(true);
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
  return (
    <Dialog.Root open={open} onOpenChange={setOpen}>
      <Dialog.Trigger
        aria-label="Keys (?)"
        title="Keys (?)"
        className="hidden size-9 shrink-0 place-items-center rounded-full hover:bg-ink/8 sm:grid"
      >
        <Keyboard size={17} aria-hidden="true" />
      </Dialog.Trigger>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-20 bg-ink/30" />
        <Dialog.Content
          aria-describedby={undefined}
          className="fixed top-1/2 left-1/2 z-20 max-h-[90dvh] w-[min(440px,92vw)] -translate-x-1/2 -translate-y-1/2 overflow-y-auto rounded-2xl bg-film p-6 shadow-xl"
        >
          <div className="flex items-center justify-between">
            <Dialog.Title className="font-display text-[22px] font-semibold">Keys</Dialog.Title>
            <Dialog.Close aria-label="Close" className="grid size-9 place-items-center rounded-full hover:bg-ink/8">
              <X size={17} aria-hidden="true" />
            </Dialog.Close>
          </div>
          {KEYS.map(({ about, keys }) => (
            <section key={about} aria-label={about} className="mt-4">
              <h3 className="text-[13px] text-quiet">{about}</h3>
              <dl className="mt-1 grid grid-cols-[120px_1fr] gap-y-1 text-[14px]">
                {keys.map(({ press, does }) => (
                  <div key={press} className="contents">
                    <dt className="figure text-[13px]">{press}</dt>
                    <dd>{does}</dd>
                  </div>
                ))}
              </dl>
            </section>
          ))}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  );
}
