import { DropdownMenu } from "radix-ui";
import { type ReactNode, useCallback, useState } from "react";

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
  const [home, setHome] = useState<HTMLElement | null>(null);
  const find = useCallback((button: HTMLButtonElement | null) => setHome(button?.closest("main, aside, header") ?? null), []);
  return (
    <DropdownMenu.Root modal={false}>
      <DropdownMenu.Trigger ref={find} asChild>
        {trigger}
      </DropdownMenu.Trigger>
      <DropdownMenu.Portal container={home}>
        <DropdownMenu.Content
          align={align}
          sideOffset={4}
          collisionPadding={8}
          className={`z-10 max-h-[var(--radix-dropdown-menu-content-available-height)] overflow-y-auto rounded-xl border border-rule bg-film shadow-lg ${className}`}
        >
          {children}
        </DropdownMenu.Content>
      </DropdownMenu.Portal>
    </DropdownMenu.Root>
  );
}
