import { formatLength, readSheets, SHELF, type ShelfSheet, writeSheetsCsv, writeSheetsJson } from "@mend-joint/core/piece";
import { ArrowLeft, Plus } from "lucide-react";
import { Link, useNavigate, useParams } from "react-router";
import { toast } from "sonner";
import { Swatch } from "../stage/Swatch";
import { useBench } from "../state/bench";
import { dropSheet, saveSheet, useSheets, useStockShelf } from "../state/stocks";
import { SheetForm } from "../stock/SheetForm";
import { Button } from "../ui/Button";
import { download } from "../ui/download";
import { FileButton } from "../ui/FileButton";

const SHIPPED: ReadonlySet<string> = new Set(SHELF.map(({ id }) => id));
const failed = (error: Error) => void toast.error(error.message);

/** The maker's sheets: what they are, what is there of them, and where each figure comes from. */
export function StockScreen() {
  const sheets = useSheets();
  const { own, fault, fetched } = useStockShelf();
  const units = useBench((state) => state.units);
  const { sheet: chosen } = useParams();
  const navigate = useNavigate();
  const setChosen = (id: string) => navigate(`/stock/${encodeURIComponent(id)}`, { replace: true });
  const named = sheets.find(({ id }) => id === chosen);
  const isMissing = chosen !== undefined && !named;
  const sheet = named ?? sheets[0]!;
  const isShipped = SHIPPED.has(sheet.id);
  const save = (next: ShelfSheet) => saveSheet(next).catch(failed);
  const add = () => {
    const id = `own-${crypto.randomUUID().slice(0, 8)}`;
    const name = `${sheet.stock.name} (mine)`.slice(0, 60);
    void save({ ...sheet, id, stock: { ...sheet.stock, id, name } }).then(() => setChosen(id));
  };
  const drop = () => {
    const before = sheet;
    if (!isShipped) navigate("/stock", { replace: true });
    void dropSheet(sheet.id).then(
      () =>
        toast(
          isShipped ? `${before.stock.name} is as it was before you changed it.` : `${before.stock.name} is off your shelf.`,
          {
            action: { label: "Put back", onClick: () => void save(before) },
          },
        ),
      failed,
    );
  };
  const take = async (picked: File) => {
    try {
      const read = readSheets(await picked.text());
      await Promise.all(read.map(saveSheet));
      setChosen(read[0]!.id);
      toast(`${read.length} ${read.length === 1 ? "sheet is" : "sheets are"} on your shelf.`);
    } catch (error) {
      failed(error as Error);
    }
  };
  return (
    <div className="grid h-full grid-rows-[auto_minmax(0,1fr)]">
      <header className="flex flex-wrap items-center justify-between gap-3 border-b border-rule px-5 py-3">
        <div className="flex items-center gap-4">
          <Link to="/" aria-label="Back to the rack" className="grid size-9 place-items-center rounded-full hover:bg-ink/8">
            <ArrowLeft size={17} aria-hidden="true" />
          </Link>
          <div>
            <h1 className="font-display text-[20px] leading-tight font-semibold">Your sheets</h1>
            <p className="text-[13px] text-quiet">What a verdict goes by, and where each figure comes from.</p>
          </div>
        </div>
        <div className="flex flex-wrap gap-2">
          <FileButton accept=".json,.csv,text/csv,application/json" testId="sheets-file" onPick={(picked) => void take(picked)}>
            Read a list
          </FileButton>
          <Button onClick={() => download("sheets.csv", "text/csv", new TextEncoder().encode(writeSheetsCsv(sheets)))}>
            Take along as CSV
          </Button>
          <Button onClick={() => download("sheets.json", "application/json", new TextEncoder().encode(writeSheetsJson(sheets)))}>
            as JSON
          </Button>
          <Button look="strong" onClick={add}>
            <Plus size={16} aria-hidden="true" /> A sheet of your own
          </Button>
        </div>
      </header>
      <div className="flex min-h-0 flex-col overflow-y-auto md:grid md:grid-cols-[340px_minmax(0,1fr)] md:overflow-visible">
        <nav
          aria-label="Sheets"
          className="max-h-[38dvh] shrink-0 overflow-y-auto border-b border-rule md:max-h-none md:min-h-0 md:border-r md:border-b-0"
        >
          {fault && (
            <p role="alert" className="px-5 pt-3 text-[13px] text-falls">
              {fault}
            </p>
          )}
          <ul className="p-2">
            {sheets.map(({ id, stock, count }) => (
              <li key={id}>
                <button
                  type="button"
                  aria-pressed={!isMissing && id === sheet.id}
                  onClick={() => setChosen(id)}
                  className="flex w-full items-center gap-3 rounded-lg px-3 py-1.5 text-left hover:bg-ink/5 aria-pressed:bg-film"
                >
                  <Swatch sheet={stock} size={32} />
                  <span className="min-w-0 flex-1">
                    <span className="block truncate text-[14px] font-medium">{stock.name}</span>
                    <span className="block truncate text-[12px] text-quiet">
                      {stock.tool === "saw" ? "saw" : "laser"}
                      {own.has(id) && (SHIPPED.has(id) ? ", changed by you" : ", yours")}
                      {count !== null && `, ${count} there`}
                    </span>
                  </span>
                  <span className="figure text-[12px] text-quiet">{formatLength(stock.leastWidth, units)}</span>
                </button>
              </li>
            ))}
          </ul>
        </nav>
        <main className="px-6 py-5 md:min-h-0 md:overflow-y-auto">
          {isMissing ? (
            <p className="text-quiet">
              {fetched ? "There is no such sheet on your shelf. Choose another in the list." : "Looking for the sheet …"}
            </p>
          ) : (
            <SheetForm
              key={sheet.id}
              sheet={sheet}
              onChange={(next) => void save(next)}
              onDrop={own.has(sheet.id) ? drop : null}
              shipped={isShipped}
            />
          )}
        </main>
      </div>
    </div>
  );
}
