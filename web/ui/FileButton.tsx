import { type ComponentProps, useRef } from "react";
import { Button } from "./Button";

type Props = Omit<ComponentProps<typeof Button>, "onClick"> & {
  accept: string;
  /** Of the field that takes the file. */
  testId: string;
  onPick(file: File): void;
};

/** Asks for a file. The same one can be chosen again. */
export function FileButton({ accept, testId, onPick, ...props }: Props) {
  const field = useRef<HTMLInputElement>(null);
  return (
    <>
      <input
        ref={field}
        type="file"
        accept={accept}
        className="hidden"
        data-testid={testId}
        onChange={(event) => {
          const file = event.target.files?.[0];
          if (file) onPick(file);
          event.target.value = "";
        }}
      />
      <Button {...props} onClick={() => field.current?.click()} />
    </>
  );
}
