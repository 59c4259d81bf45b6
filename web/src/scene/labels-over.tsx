import type { Point } from "@/api/types";
import { polyline } from "@/draw/projection";
import { axesOf, type Camera, type Projection } from "./camera";
import { type LaidLabel, leaderEnd } from "./labels";
import type { SceneClash } from "./model";

interface Props {
  laid: readonly LaidLabel[];
  clashes: readonly SceneClash[];
  projection: Projection;
}

/** Labels on their leaders, and the marks of what comes too near, over the picture. */
export function LabelsOver({ laid, clashes, projection }: Props) {
  return (
    <g>
      {laid.map((one) => (
        <Leader key={one.label.key} one={one} place={projection.place} />
      ))}
      {clashes.map((clash) => (
        <ClashMark key={clash.key} clash={clash} at={projection.place(clash.at)} />
      ))}
      {laid.map(({ label, box }) => (
        <g
          key={label.key}
          onPointerDown={(event) => {
            if (!label.chooses) return;
            event.stopPropagation();
            label.chooses();
          }}
          className={label.chooses ? "pointer-events-auto cursor-pointer" : "pointer-events-none"}
        >
          <Plate laid={{ label, box, from: [0, 0] }} />
        </g>
      ))}
    </g>
  );
}

function Leader({ one, place }: { one: LaidLabel; place: Projection["place"] }) {
  const end = leaderEnd(one);
  const span = one.label.span?.map(place);
  return (
    <g stroke={one.label.isChosen ? "var(--accent)" : "var(--soft)"} strokeWidth="1.3">
      <line x1={one.from[0]} y1={one.from[1]} x2={end[0]} y2={end[1]} />
      {span && <path d={polyline(span)} strokeWidth="1.6" strokeDasharray="5 4" />}
      {span?.map((tip) => (
        <circle key={tip.join()} cx={tip[0]} cy={tip[1]} r="3.4" fill="var(--soft)" stroke="none" />
      ))}
      <circle cx={one.from[0]} cy={one.from[1]} r="2.4" fill="var(--soft)" stroke="none" />
    </g>
  );
}

function Plate({ laid: { label, box } }: { laid: LaidLabel }) {
  const isNumber = label.look === "number";
  const ink = label.isChosen ? "var(--accent)" : label.look === "clash" ? "var(--stop)" : "var(--ink)";
  return (
    <>
      <rect
        {...box}
        rx={isNumber ? box.height / 2 : 4}
        fill={isNumber ? ink : "var(--paper)"}
        stroke={isNumber ? "none" : "var(--line)"}
        strokeWidth="1"
      />
      <text
        x={box.x + box.width / 2}
        y={box.y + box.height / 2 + 5.5}
        textAnchor="middle"
        fontSize={label.look === "figure" ? 15 : 16}
        fontWeight="600"
        fill={isNumber ? "var(--paper)" : ink}
        className="tape"
      >
        {label.text}
      </text>
    </>
  );
}

/** A clash is known by its shape as by its colour: a square on its corner, with a stroke across where both touch. */
function ClashMark({ clash, at: [x, y] }: { clash: SceneClash; at: readonly [number, number] }) {
  const color = clash.isStop ? "var(--stop)" : "var(--caution)";
  return (
    <g
      transform={`translate(${x} ${y})`}
      className="pointer-events-auto cursor-pointer"
      data-testid="clash"
      onPointerDown={(event) => {
        event.stopPropagation();
        clash.chooses?.();
      }}
    >
      <rect
        x="-13"
        y="-13"
        width="26"
        height="26"
        transform="rotate(45)"
        fill="var(--paper)"
        stroke={color}
        strokeWidth="3"
      />
      <path
        d={clash.isStop ? "M-7 -7L7 7M-7 7L7 -7" : "M0 -8V3M0 7V9"}
        stroke={color}
        strokeWidth="3.4"
        fill="none"
      />
    </g>
  );
}

const ARROWS: { way: Point; says: string }[] = [
  { way: [1, 0, 0], says: "right" },
  { way: [0, 1, 0], says: "up" },
  { way: [0, 0, 1], says: "out" },
];
const LONG = 30;

/** A small figure of which way is right, up and out. */
export function WayFigure({ camera, words }: { camera: Camera; words: Record<string, string> }) {
  const { right, up, toward } = axesOf(camera);
  const arrows = ARROWS.map(({ way, says }) => ({
    says,
    x: LONG * (way[0] * right[0] + way[1] * right[1] + way[2] * right[2]),
    y: -LONG * (way[0] * up[0] + way[1] * up[1] + way[2] * up[2]),
    near: way[0] * toward[0] + way[1] * toward[1] + way[2] * toward[2],
  })).sort((a, b) => a.near - b.near);
  return (
    <svg width="112" height="104" aria-hidden="true" className="pointer-events-none absolute bottom-2 left-2">
      <g transform="translate(52 56)">
        {arrows.map(({ says, x, y }) => {
          const long = Math.hypot(x, y);
          return (
            <g key={says}>
              <line x1="0" y1="0" x2={x} y2={y} stroke="var(--soft)" strokeWidth="2.5" />
              <circle cx={x} cy={y} r="3.2" fill="var(--soft)" />
              {long > LONG / 3 && (
                <text
                  x={x * 1.45}
                  y={y * 1.35 + 5}
                  textAnchor="middle"
                  fontSize="14"
                  fill="var(--soft)"
                  stroke="var(--sheet)"
                  strokeWidth="3"
                  paintOrder="stroke"
                >
                  {words[says]}
                </text>
              )}
            </g>
          );
        })}
      </g>
    </svg>
  );
}
