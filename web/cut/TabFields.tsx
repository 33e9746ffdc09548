import { TAB_LIMITS } from "@mend-joint/core/cut";
import { useCutting } from "../state/cutting";
import { LengthField } from "../ui/LengthField";
import { NumberField } from "../ui/NumberField";
import { Two } from "../ui/Two";

/** How many holding tabs, and how wide: remembered for single pieces and for sheets alike. */
export function TabFields() {
  const { tabs, tabWidth } = useCutting();
  const { count, width } = TAB_LIMITS;
  return (
    <Two>
      <NumberField
        label="Holding tabs"
        unit="each"
        value={tabs}
        least={count.least}
        most={count.most}
        onChange={(next) => useCutting.setState({ tabs: Math.round(next) })}
        hint={tabs > 0 ? "fewer on short outlines" : "so nothing drops"}
      />
      {tabs > 0 && (
        <LengthField
          label="Tab length"
          value={tabWidth}
          least={width.least}
          most={width.most}
          step={0.1}
          onChange={(next) => useCutting.setState({ tabWidth: next })}
          hint="that the cut leaves"
        />
      )}
    </Two>
  );
}
