import { CLOCK, frequencyAxis, levelAt, type PlotProps, unbroken } from "./plotTypes";
import { formatClock, formatMoment } from "./units";

/** What is drawn, as CSV: the first trace's frequencies, one column a trace. */
export function toCsv(props: PlotProps): string {
  const [main] = props.traces;
  if (!main) {
    return curvesToCsv(props);
  }
  const quote = (s: string) => `"${s.replaceAll('"', '""')}"`;
  const rows = [
    `# ${props.yLabel}`,
    ["frequency (Hz)", ...props.traces.map((t) => quote(`${t.label} (${props.yUnit})`))].join(","),
  ];
  for (let i = 0; i < main.level.length; i++) {
    const hertz = main.startHz + i * main.stepHz;
    if (hertz < props.xRange[0] - main.stepHz / 2 || hertz > props.xRange[1] + main.stepHz / 2) {
      continue;
    }
    const cells = props.traces.map((t) => levelAt(t, hertz)?.toFixed(4) ?? "");
    rows.push([hertz.toFixed(4), ...cells].join(","));
  }
  return `${rows.join("\n")}\n`;
}

/** Curves with points of their own: a block a curve. */
function curvesToCsv(props: PlotProps): string {
  const blocks = (props.curves ?? []).map((c) => {
    const head = `# ${c.label || props.title}\n${props.xName ?? "frequency"} (${props.xUnit ?? "Hz"}),${props.yLabel}`;
    const place = (x: number) => (props.xUnit === CLOCK ? formatMoment(x) : String(x));
    const value = (y: number) => (Number.isNaN(y) ? "" : String(y));
    return [head, ...c.x.map((x, i) => `${place(x)},${value(c.y[i])}`)].join("\n");
  });
  return `${blocks.join("\n\n")}\n`;
}

const SVG_WIDTH = 960;
const SVG_HEIGHT = 540;
const MARGIN = { left: 70, right: 20, top: 46, bottom: 56 };

/** What is drawn, as a self-contained SVG picture. */
export function toSvg(props: PlotProps, colour: (name: string) => string): string {
  const [x0, x1] = props.xRange;
  const [y0, y1] = props.yRange;
  const w = SVG_WIDTH - MARGIN.left - MARGIN.right;
  const h = SVG_HEIGHT - MARGIN.top - MARGIN.bottom;
  const along = (x: number) =>
    props.logarithmic ? Math.log(x / x0) / Math.log(x1 / x0) : (x - x0) / (x1 - x0);
  const px = (x: number) => MARGIN.left + along(x) * w;
  const py = (db: number) => MARGIN.top + ((y1 - db) / (y1 - y0)) * h;
  const inHertz = (props.xUnit ?? "Hz") === "Hz";
  const axis = inHertz ? frequencyAxis(props.xRange) : { scale: 1, unit: props.xUnit };
  const ink = colour("--ink");
  const safe = (s: string) =>
    s.replaceAll("&", "&amp;").replaceAll("<", "&lt;").replaceAll('"', "&quot;");
  const out: string[] = [
    `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 ${SVG_WIDTH} ${SVG_HEIGHT}" font-family="sans-serif" font-size="13" fill="${ink}">`,
    `<rect width="100%" height="100%" fill="${colour("--sheet")}"/>`,
    `<text x="${MARGIN.left}" y="20" font-size="15">${safe(props.title)}</text>`,
  ];
  for (let i = 0; i <= 10; i++) {
    const x = MARGIN.left + (w * i) / 10;
    const y = MARGIN.top + (h * i) / 10;
    const hz = props.logarithmic ? x0 * (x1 / x0) ** (i / 10) : x0 + ((x1 - x0) * i) / 10;
    const db = y1 - ((y1 - y0) * i) / 10;
    out.push(
      `<path d="M${x} ${MARGIN.top}v${h}M${MARGIN.left} ${y}h${w}" stroke="${colour("--grid")}" fill="none"/>`,
    );
    if (i % 2 === 0) {
      out.push(
        `<text x="${x}" y="${MARGIN.top + h + 18}" text-anchor="middle">${axis.unit === CLOCK ? formatClock(hz, (x1 - x0) / 5) : Number((hz / axis.scale).toPrecision(props.logarithmic ? 3 : 9))}</text>`,
      );
    }
    out.push(
      `<text x="${MARGIN.left - 8}" y="${y + 4}" text-anchor="end">${Number(db.toFixed(2))}</text>`,
    );
  }
  out.push(
    `<text x="${MARGIN.left + w / 2}" y="${SVG_HEIGHT - 14}" text-anchor="middle">${safe(props.xName ?? "Frequency")} (${axis.unit})</text>`,
    `<text x="16" y="${MARGIN.top + h / 2}" text-anchor="middle" transform="rotate(-90 16 ${MARGIN.top + h / 2})">${safe(props.yLabel)}</text>`,
    `<clipPath id="plot"><rect x="${MARGIN.left}" y="${MARGIN.top}" width="${w}" height="${h}"/></clipPath>`,
  );
  props.traces.forEach((t, index) => {
    const points: string[] = [];
    for (let i = 0; i < t.level.length; i++) {
      const hz = t.startHz + i * t.stepHz;
      if (hz >= x0 - t.stepHz && hz <= x1 + t.stepHz && Number.isFinite(t.level[i])) {
        points.push(`${px(hz).toFixed(2)},${py(t.level[i]).toFixed(2)}`);
      }
    }
    const stroke = colour(`--trace-${t.colour}`);
    out.push(
      `<polyline clip-path="url(#plot)" points="${points.join(" ")}" fill="none" stroke="${stroke}" stroke-width="${t.width ?? 1.3}"${t.dash ? ` stroke-dasharray="${t.dash.join(" ")}"` : ""}/>`,
      `<text x="${SVG_WIDTH - MARGIN.right}" y="${20 + index * 16}" text-anchor="end" fill="${stroke}">${safe(t.label)}</text>`,
    );
  });
  for (const c of props.curves ?? []) {
    const stroke = colour(c.limit ? "--plane" : `--trace-${c.colour ?? 0}`);
    for (const { x, y } of unbroken(c)) {
      const points = x.map((at, i) => `${px(at).toFixed(2)},${py(y[i]).toFixed(2)}`).join(" ");
      out.push(
        `<polyline clip-path="url(#plot)" points="${points}" fill="none" stroke="${stroke}" stroke-width="1.5"/>`,
      );
    }
  }
  for (const limit of props.limits ?? []) {
    if (limit.level >= y0 && limit.level <= y1) {
      out.push(
        `<path d="M${MARGIN.left} ${py(limit.level)}h${w}" stroke="${colour("--plane")}" stroke-width="1.5"/>`,
        `<text x="${MARGIN.left + 6}" y="${py(limit.level) - 4}" fill="${colour("--plane")}">${safe(limit.label)}</text>`,
      );
    }
  }
  for (const m of props.markers ?? []) {
    out.push(
      `<path d="M${px(m.hertz)} ${py(m.level)}l-5 -9h10z" fill="${ink}"/>`,
      `<text x="${px(m.hertz)}" y="${py(m.level) - 13}" text-anchor="middle">${safe(m.label)}</text>`,
    );
  }
  out.push("</svg>");
  return out.join("\n");
}

/** The canvas of a plot on its paper, as PNG. */
export function canvasToPng(canvas: HTMLCanvasElement, paper: string): Promise<Blob | null> {
  const sheet = document.createElement("canvas");
  sheet.width = canvas.width;
  sheet.height = canvas.height;
  const context = sheet.getContext("2d");
  if (context) {
    context.fillStyle = paper;
    context.fillRect(0, 0, sheet.width, sheet.height);
    context.drawImage(canvas, 0, 0);
  }
  return new Promise((resolve) => sheet.toBlob(resolve, "image/png"));
}
