import type { TwoPortDetail } from "../../api/client";
import { active } from "./panes";

/** Loads and sources at the edge of stability, at the markers; beyond or within lies trouble. */
export function StabilityCircles({ details, port }: { details: TwoPortDetail[]; port: number }) {
  return details.filter(active).map((d) => {
    const centre = port === 2 ? d.loadCircle : d.sourceCircle;
    const radius = port === 2 ? d.loadRadius : d.sourceRadius;
    const match = port === 2 ? d.matchedLoad : d.matchedSource;
    return (
      <g key={d.hertz}>
        {radius > 0 && radius < 50 && (
          <circle
            cx={centre.re}
            cy={-centre.im}
            r={radius}
            fill="none"
            stroke="var(--plane)"
            strokeWidth={0.008}
            strokeDasharray="0.04 0.02"
          >
            <title>{`edge of stability of the ${port === 2 ? "load" : "source"}`}</title>
          </circle>
        )}
        {match && (
          <path
            d={`M${match.re - 0.03} ${-match.im}h0.06M${match.re} ${-match.im - 0.03}v0.06`}
            stroke="var(--ink)"
            strokeWidth={0.012}
          >
            <title>{`matches both ports: ${port === 2 ? "load" : "source"}`}</title>
          </path>
        )}
      </g>
    );
  });
}
