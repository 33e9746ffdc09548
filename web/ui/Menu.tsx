import { DropdownMenu } from "radix-ui";
import { type ReactNode, useRef, useState } from "react";

interface Props {
  /** The button that opens it. */
  trigger: ReactNode;
  align?: "start" | "end";
  className?: string;
  children: ReactNode;
}

/**
 * A menu that opens below its button. It lies in the same part of the page as the button, and what is behind it stays there for screen
 * readers.
 */
export function Menu({ trigger, align = "start", className = "", children }: Props) {
  const button = useRef<HTMLButtonElement>(null);
  const [home, setHome] = useState<HTMLElement | null>(null);
  return (
    <DropdownMenu.Root
      modal={false}
      onOpenChange={(open) => open && setHome(button.current?.closest<HTMLElement>("main, aside, header") ?? null)}
    >
      <DropdownMenu.Trigger ref={button} asChild>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={home}>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className={`z-10 rounded-xl border border-rule bg-film shadow-lg ${className}`}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
