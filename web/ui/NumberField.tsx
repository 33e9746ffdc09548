import { FigureField, type FigureProps } from "./FigureField";

const readNumber = (text: string) => {
  const value = Number(text.trim().replace(",", "."));
  return text.trim() !== "" && Number.isFinite(value) ? value : null;
};

/** A plain figure with a unit that does not change. */
export function NumberField({ unit, ...props }: FigureProps & { unit: string }) {
  return (
    <FigureField
      step={1}
      {...props}
      notation={{ unit, write: String, read: readNumber, say: (value) => `${value} ${unit}`, example: "60" }}
    />
  );
}
