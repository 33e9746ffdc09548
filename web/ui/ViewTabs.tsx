import { ToggleGroup } from "radix-ui";

interface Props<View extends string> {
  value: View;
  views: readonly { value: View; text: string }[];
  onChange(view: View): void;
}

/** What is shown of a piece or a run, in the middle of the bar above it; on a phone below its name. */
export function ViewTabs<View extends string>({ value, views, onChange }: Props<View>) {
  return (
    <ToggleGroup.Root
      type="single"
      value={value}
      aria-label="What is shown"
      onValueChange={(next) => next && onChange(next as View)}
      className="order-3 col-span-2 flex gap-6 overflow-x-auto md:order-none md:col-span-1 md:overflow-visible"
    >
      {views.map(({ value, text }) => (
        <ToggleGroup.Item
          key={value}
          value={value}
          className="h-11 shrink-0 border-b-2 border-transparent px-1 text-[15px] text-quiet hover:text-ink data-[state=on]:border-ink data-[state=on]:font-semibold data-[state=on]:text-ink md:h-[52px]"
        >
          {text}
        </ToggleGroup.Item>
      ))}
    </ToggleGroup.Root>
  );
}
