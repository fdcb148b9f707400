import type uPlot from "uplot";
import { type PlotCurve, type PlotProps, unbroken } from "./plotTypes";

const tokens = new Map<string, string>();
let tokensOf: string | null = null;

/** Value of a theme token; asked of the page once a theme, since asking costs a layout. */
export function css(name: string): string {
  const scheme = document.documentElement.getAttribute("data-mantine-color-scheme");
  if (scheme !== tokensOf) {
    tokens.clear();
    tokensOf = scheme;
  }
  let value = tokens.get(name);
  if (value === undefined) {
    value = getComputedStyle(document.documentElement).getPropertyValue(name).trim();
    tokens.set(name, value);
  }
  return value;
}

/** What lies under the traces: older looks, and bands that must not be trusted. */
export function drawUnder(u: uPlot, props: PlotProps) {
  if (!props.spoiled?.length && !props.history?.length && !props.band) {
    return;
  }
  const { ctx } = u;
  clipped(u, () => {
    if (props.band) {
      const [from, to] = props.band.map((hz) => u.valToPos(hz, "x", true));
      ctx.fillStyle = css("--ink");
      ctx.globalAlpha = 0.1;
      ctx.fillRect(from, u.bbox.top, Math.max(to - from, 2), u.bbox.height);
      ctx.globalAlpha = 1;
    }
    for (const band of props.spoiled ?? []) {
      const from = u.valToPos(band.fromHz, "x", true);
      const to = u.valToPos(band.toHz, "x", true);
      hatch(ctx, from, u.bbox.top, Math.max(to - from, 2), u.bbox.height);
    }
    const main = props.traces[0];
    const looks = props.history ?? [];
    if (main) {
      ctx.strokeStyle = css(`--trace-${main.colour}`);
      ctx.lineWidth = devicePixelRatio;
      for (let i = looks.length - 1; i >= 0; i--) {
        ctx.globalAlpha = Math.max(0.05, 0.55 * (1 - i / looks.length));
        ctx.beginPath();
        for (let k = 0; k < looks[i].length; k++) {
          const x = u.valToPos(main.startHz + k * main.stepHz, "x", true);
          const y = u.valToPos(looks[i][k], "y", true);
          k === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y);
        }
        ctx.stroke();
      }
    }
  });
}

/** What lies over the traces: limits, curves and markers. */
export function drawOver(u: uPlot, props: PlotProps) {
  const { ctx } = u;
  const ratio = devicePixelRatio;
  clipped(u, () => {
    ctx.font = `600 ${13 * ratio}px "Atkinson Hyperlegible Next", sans-serif`;
    // Labels keep clear of each other and of the markers, which are drawn last.
    const labels: Box[] = (props.markers ?? []).flatMap((m) => {
      const x = u.valToPos(m.hertz, "x", true);
      const y = u.valToPos(m.level, "y", true);
      return [y - 2 * ratio, y - 17 * ratio].map(
        (base): Box => [x - 8 * ratio, x + 8 * ratio, base],
      );
    });
    for (const curve of props.curves ?? []) {
      drawCurve(u, curve, labels);
    }
    for (const limit of props.limits ?? []) {
      const y = u.valToPos(limit.level, "y", true);
      ctx.strokeStyle = css("--plane");
      ctx.fillStyle = css("--plane");
      ctx.lineWidth = 1.6 * ratio;
      ctx.beginPath();
      ctx.moveTo(u.bbox.left, y);
      ctx.lineTo(u.bbox.left + u.bbox.width, y);
      ctx.stroke();
      ctx.textAlign = "left";
      ctx.fillText(limit.label, u.bbox.left + 8 * ratio, y + (limit.below ? 14 : -5) * ratio);
    }
    ctx.fillStyle = css("--ink");
    ctx.strokeStyle = css("--sheet");
    ctx.textAlign = "center";
    for (const m of props.markers ?? []) {
      const x = u.valToPos(m.hertz, "x", true);
      const y = u.valToPos(m.level, "y", true) - 2 * ratio;
      ctx.beginPath();
      ctx.moveTo(x, y);
      ctx.lineTo(x - 6 * ratio, y - 11 * ratio);
      ctx.lineTo(x + 6 * ratio, y - 11 * ratio);
      ctx.closePath();
      ctx.fill();
      ctx.lineWidth = 3 * ratio;
      const above = Math.max(y - 15 * ratio, u.bbox.top + 12 * ratio);
      ctx.strokeText(m.label, x, above);
      ctx.fillText(m.label, x, above);
    }
  });
}

/** Where a label stands: its left, right and base line. */
type Box = [number, number, number];

/** Writes a label over its line, or under it, or further up, where no other label stands yet. */
function label(u: uPlot, text: string, x: number, y: number, others: Box[]) {
  const { ctx } = u;
  const ratio = devicePixelRatio;
  const width = ctx.measureText(text).width;
  const left = Math.max(
    u.bbox.left + 2 * ratio,
    Math.min(x + 6 * ratio, u.bbox.left + u.bbox.width - width - 4 * ratio),
  );
  const lowest = u.bbox.top + u.bbox.height - 4 * ratio;
  const free = (base: number) =>
    base > u.bbox.top + 11 * ratio &&
    base < lowest &&
    others.every(([a, b, at]) => left > b || left + width < a || Math.abs(at - base) >= 15 * ratio);
  const bases = [-5, 15, -20, 30].map((off) => y + off * ratio);
  const base = bases.find(free) ?? bases[0];
  others.push([left, left + width, base]);
  ctx.textAlign = "left";
  ctx.fillText(text, left, base);
}

function drawCurve(u: uPlot, curve: PlotCurve, labels: Box[]) {
  const { ctx } = u;
  const ratio = devicePixelRatio;
  const colour = css(
    curve.edge ? "--ink" : curve.limit ? "--plane" : `--trace-${curve.colour ?? 0}`,
  );
  ctx.setLineDash(curve.edge ? [4 * ratio, 3 * ratio] : []);
  ctx.strokeStyle = colour;
  ctx.fillStyle = colour;
  ctx.lineWidth = 1.6 * ratio;
  ctx.beginPath();
  if (curve.edge) {
    const x = u.valToPos(curve.x[0], "x", true);
    ctx.moveTo(x, u.bbox.top);
    ctx.lineTo(x, u.bbox.top + u.bbox.height);
    ctx.stroke();
  } else {
    for (const piece of unbroken(curve)) {
      ctx.beginPath();
      if (piece.x.length > 2 * u.bbox.width) {
        ribbon(u, piece, ctx.lineWidth / 2);
        ctx.fill();
        continue;
      }
      for (let i = 0; i < piece.x.length; i++) {
        ctx.lineTo(u.valToPos(piece.x[i], "x", true), u.valToPos(piece.y[i], "y", true));
      }
      ctx.stroke();
    }
  }
  ctx.setLineDash([]);
  if (curve.dots) {
    for (let i = 0; i < curve.x.length; i++) {
      ctx.beginPath();
      const at = [u.valToPos(curve.x[i], "x", true), u.valToPos(curve.y[i], "y", true)];
      ctx.arc(at[0], at[1], 3.5 * ratio, 0, 2 * Math.PI);
      ctx.fill();
    }
  }
  if (curve.limit && curve.label) {
    const [x, y] = [u.valToPos(curve.x[0], "x", true), u.valToPos(curve.y[0], "y", true)];
    label(u, curve.label, x, y, labels);
  }
}

/**
 * A curve with several points on each pixel column as a band from the highest to the lowest of each,
 * half a line's width wider: it looks as the line would, and a filled band takes a browser a third
 * of the time of a line with as many corners.
 */
function ribbon(u: uPlot, curve: { x: number[]; y: number[] }, half: number) {
  const { ctx } = u;
  const columns: number[] = [];
  const tops: number[] = [];
  const bottoms: number[] = [];
  let n = -1;
  let last = Number.NaN;
  for (let i = 0; i < curve.x.length; i++) {
    const column = Math.round(u.valToPos(curve.x[i], "x", true));
    const y = u.valToPos(curve.y[i], "y", true);
    if (n < 0 || column !== columns[n]) {
      // A column begins where the one before ended: the band has no gaps where it is steep.
      columns.push(column);
      tops.push(n < 0 ? y : Math.min(y, last));
      bottoms.push(n < 0 ? y : Math.max(y, last));
      n++;
    } else {
      tops[n] = Math.min(tops[n], y);
      bottoms[n] = Math.max(bottoms[n], y);
    }
    last = y;
  }
  for (let k = 0; k <= n; k++) {
    ctx.lineTo(columns[k], tops[k] - half);
  }
  for (let k = n; k >= 0; k--) {
    ctx.lineTo(columns[k], bottoms[k] + half);
  }
  ctx.closePath();
}

function hatch(ctx: CanvasRenderingContext2D, x: number, y: number, w: number, h: number) {
  ctx.save();
  ctx.beginPath();
  ctx.rect(x, y, w, h);
  ctx.clip();
  ctx.strokeStyle = css("--fail");
  ctx.globalAlpha = 0.35;
  ctx.lineWidth = devicePixelRatio;
  ctx.beginPath();
  for (let d = -h; d < w; d += 9 * devicePixelRatio) {
    ctx.moveTo(x + d, y + h);
    ctx.lineTo(x + d + h, y);
  }
  ctx.stroke();
  ctx.restore();
}

function clipped(u: uPlot, draw: () => void) {
  u.ctx.save();
  u.ctx.beginPath();
  u.ctx.rect(u.bbox.left, u.bbox.top, u.bbox.width, u.bbox.height);
  u.ctx.clip();
  draw();
  u.ctx.restore();
}
