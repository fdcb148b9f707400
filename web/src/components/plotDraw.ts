import type uPlot from "uplot";
import type { PlotCurve, PlotProps } from "./plotTypes";

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
  if (!props.spoiled?.length && !props.history?.length) {
    return;
  }
  const { ctx } = u;
  clipped(u, () => {
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
    for (const curve of props.curves ?? []) {
      drawCurve(u, curve);
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

function drawCurve(u: uPlot, curve: PlotCurve) {
  const { ctx } = u;
  const ratio = devicePixelRatio;
  const colour = css(curve.limit ? "--plane" : `--trace-${curve.colour ?? 0}`);
  ctx.strokeStyle = colour;
  ctx.fillStyle = colour;
  ctx.lineWidth = 1.6 * ratio;
  ctx.beginPath();
  trail(ctx, curve, u);
  ctx.stroke();
  if (curve.dots) {
    for (let i = 0; i < curve.x.length; i++) {
      ctx.beginPath();
      const at = [u.valToPos(curve.x[i], "x", true), u.valToPos(curve.y[i], "y", true)];
      ctx.arc(at[0], at[1], 3.5 * ratio, 0, 2 * Math.PI);
      ctx.fill();
    }
  }
  if (curve.limit && curve.label) {
    ctx.textAlign = "left";
    ctx.fillText(
      curve.label,
      u.valToPos(curve.x[0], "x", true) + 6 * ratio,
      u.valToPos(curve.y[0], "y", true) - 5 * ratio,
    );
  }
}

/**
 * The points of a curve. Where several lie on one pixel column the column's lowest and highest are
 * drawn, which looks the same and is far quicker.
 */
function trail(ctx: CanvasRenderingContext2D, curve: PlotCurve, u: uPlot) {
  const many = curve.x.length > 2 * u.bbox.width;
  let column = Number.NaN;
  let low = 0;
  let high = 0;
  let last = 0;
  for (let i = 0; i < curve.x.length; i++) {
    const x = u.valToPos(curve.x[i], "x", true);
    const y = u.valToPos(curve.y[i], "y", true);
    if (!many) {
      i === 0 ? ctx.moveTo(x, y) : ctx.lineTo(x, y);
      continue;
    }
    const here = Math.round(x);
    if (here === column) {
      low = Math.min(low, y);
      high = Math.max(high, y);
    } else {
      if (!Number.isNaN(column)) {
        ctx.lineTo(column, low);
        ctx.lineTo(column, high);
        ctx.lineTo(column, last);
      } else {
        ctx.moveTo(here, y);
      }
      ctx.lineTo(here, y);
      column = here;
      low = y;
      high = y;
    }
    last = y;
  }
  if (many && !Number.isNaN(column)) {
    ctx.lineTo(column, low);
    ctx.lineTo(column, high);
  }
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
