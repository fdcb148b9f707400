import { ActionIcon, Menu } from "@mantine/core";
import { IconDownload } from "@tabler/icons-react";
import { memo, type RefObject } from "react";
import { useCursor } from "./cursor";
import { download } from "./download";
import classes from "./Plot.module.css";
import { css } from "./plotDraw";
import { axisKey } from "./plotOptions";
import { CLOCK, curveAt, levelAt, type PlotProps } from "./plotTypes";
import { formatEngineering, formatHertz, formatMoment } from "./units";

/** What is drawn, as a file; apart from the plot, which changes with every frame. */
const SaveMenu = memo(function SaveMenu(props: {
  live: RefObject<PlotProps>;
  host: RefObject<HTMLDivElement | null>;
  title: string;
}) {
  const { live, host, title } = props;
  const name = title.replace(/[^\w.-]+/g, "_");
  const save = async (what: "png" | "svg" | "csv") => {
    const { canvasToPng, toCsv, toSvg } = await import("./plotExport");
    if (what === "svg") {
      download(`${name}.svg`, toSvg(live.current, css), "image/svg+xml");
    } else if (what === "csv") {
      download(`${name}.csv`, toCsv(live.current), "text/csv");
    } else {
      const canvas = host.current?.querySelector("canvas");
      const png = canvas && (await canvasToPng(canvas, css("--sheet")));
      if (png) {
        download(`${name}.png`, png);
      }
    }
  };
  return (
    <Menu position="bottom-end" withinPortal>
      <Menu.Target>
        <ActionIcon variant="subtle" size="sm" aria-label={`Save ${title}`} title="Save">
          <IconDownload size={16} />
        </ActionIcon>
      </Menu.Target>
      <Menu.Dropdown>
        <Menu.Item onClick={() => save("png")}>Picture (PNG)</Menu.Item>
        <Menu.Item onClick={() => save("svg")}>Picture (SVG)</Menu.Item>
        <Menu.Item onClick={() => save("csv")}>What is drawn (CSV)</Menu.Item>
      </Menu.Dropdown>
    </Menu>
  );
});

function cursorText(level: number, unit: string): string {
  return unit === "V" || unit === "W"
    ? formatEngineering(level, unit)
    : unit === "Hz"
      ? formatHertz(level)
      : `${level.toFixed(unit.startsWith("dB") ? 1 : 3)} ${unit}`;
}

/** What stands where the pointer is, on this tile or on another with the same axis. */
function Readout({ props }: { props: PlotProps }) {
  const x = useCursor(axisKey(props));
  if (x === null) {
    return null;
  }
  const main = props.traces[0];
  const curve = props.curves?.find((c) => !c.limit);
  const level = main ? levelAt(main, x) : curve ? curveAt(curve, x) : null;
  const place =
    (props.xUnit ?? "Hz") === "Hz"
      ? formatHertz(x, 9)
      : props.xUnit === CLOCK
        ? formatMoment(x)
        : `${Number(x.toPrecision(4))} ${props.xUnit}`;
  return `${place}  ${level === null ? "" : cursorText(level, props.yUnit)}`;
}

/** A name in the legend, with a cross to take away what it names. */
function Key(props: { label: string; colour: number; dashed?: boolean; onRemove?: () => void }) {
  return (
    <span className={classes.key}>
      <span
        className={classes.swatch}
        style={{
          borderTopColor: `var(--trace-${props.colour})`,
          borderTopStyle: props.dashed ? "dashed" : "solid",
        }}
      />
      <span className={classes.keyLabel} title={props.label}>
        {props.label}
      </span>
      {props.onRemove && (
        <button
          type="button"
          className={classes.remove}
          aria-label={`Take ${props.label} away`}
          onClick={props.onRemove}
        >
          {"\u00D7"}
        </button>
      )}
    </span>
  );
}

/** Over a plot: what it shows, what is drawn, the readout, and what can be done with it. */
export function PlotHead(props: {
  plot: PlotProps;
  live: RefObject<PlotProps>;
  host: RefObject<HTMLDivElement | null>;
}) {
  const { plot } = props;
  const { onRemove, onRemoveCurve } = plot;
  const named = plot.curves?.filter((c) => c.label && !c.limit) ?? [];
  const several = plot.traces.length + named.length > 1;
  return (
    <div className={classes.head} data-lead={Boolean(plot.lead)} data-several={several}>
      {plot.lead && <div className={classes.lead}>{plot.lead}</div>}
      <div className={classes.keys}>
        {plot.traces.map((t, i) => (
          <Key
            key={`${t.label} ${t.colour}`}
            label={t.label}
            colour={t.colour}
            dashed={t.dash !== undefined}
            onRemove={i > 0 && onRemove && t.removable ? () => onRemove(i) : undefined}
          />
        ))}
        {named.map((c) => (
          <Key
            key={c.label}
            label={c.label}
            colour={c.colour ?? 0}
            onRemove={onRemoveCurve && (() => onRemoveCurve(c.label))}
          />
        ))}
      </div>
      <span className={`figures ${classes.readout}`} data-testid="crosshair">
        <Readout props={plot} />
      </span>
      {plot.actions}
      <SaveMenu live={props.live} host={props.host} title={plot.title} />
    </div>
  );
}
