/** The first Tabs on the bench: straight to the letters, or to what was found. */
const PLACES = [
  { id: "letters", text: "To the letters" },
  { id: "findings", text: "To the findings" },
] as const;

export function SkipLinks() {
  return (
    <nav aria-label="On this page">
      {PLACES.map(({ id, text }) => (
        <a
          key={id}
          href={`#${id}`}
          className="sr-only focus:not-sr-only focus:fixed focus:top-2 focus:left-2 focus:z-30 focus:rounded-full focus:bg-ink focus:px-4 focus:py-2 focus:text-film"
          onClick={(event) => {
            event.preventDefault();
            const place = document.getElementById(id);
            (place?.querySelector<HTMLElement>("button:not(:disabled)") ?? place)?.focus();
          }}
        >
          {text}
        </a>
      ))}
    </nav>
  );
}
