import { type CSSProperties, useId, useRef } from "react";
import styled, { keyframes } from "styled-components";
import type { Scene, Shape } from "../api/client";
import { TextButton } from "../shared/ui/Button";
import { colour, face, fold, size as sizes, space, type } from "../shared/ui/theme";
import { DimensionLine } from "./DimensionLine";
import { Frame, Picture } from "./frame";
import { Leader } from "./Leader";
import { buttonsTaken, layout } from "./layout";
import type { Projection } from "./project";
import { placeTexts } from "./texts";
import { useSize } from "./useSize";
import { seen, useView } from "./useView";

/** How long a tool takes along its path while a side is played. */
export const SWEEP_MS = 2200;

/** From where it begins to where it ends; a pause at either. */
const along = keyframes`
  0%, 12% { transform: translate(var(--from-x), var(--from-y)); }
  82%, 100% { transform: none; }
`;

const Drawing = styled(Picture)`
  [data-slides] {
    animation: ${along} ${SWEEP_MS}ms linear both;
  }
  text {
    fill: ${colour("ink")};
  }
  .outlined {
    stroke: ${colour("ink")};
    stroke-width: 1.25;
    stroke-linejoin: round;
  }
  [data-role="chuck"] {
    fill: ${colour("steel")};
  }
  [data-role="hole"] {
    fill: ${colour("card")};
    stroke-width: 1;
  }
  [data-role="bolt"] {
    fill: ${colour("sheet")};
    stroke-width: 1;
  }
  [data-role="part"] {
    stroke-width: 2;
  }
  [data-role="outline"] {
    fill: none;
    stroke-width: 1;
  }
  [data-role="hidden"] {
    fill: none;
    stroke: ${colour("soft")};
    stroke-width: 1;
    stroke-dasharray: 6 4;
  }
  [data-role="axis"] {
    fill: none;
    stroke: ${colour("ink")};
    stroke-width: 1;
    stroke-dasharray: 16 4 3 4;
  }
  [data-role="centre"] {
    fill: ${colour("sheet")};
  }
  [data-role="cut"],
  [data-role="removed"] {
    stroke: ${colour("act")};
    stroke-width: 1.25;
  }
  [data-role="keepout"] {
    stroke: ${colour("caution")};
  }
  [data-role="ghost"] {
    fill: none;
    stroke: ${colour("soft")};
    stroke-width: 1;
    stroke-dasharray: 2 3;
  }
  [data-role="tool"] {
    fill: ${colour("masterFill")};
    fill-opacity: 0.9;
  }
  [data-role="insert"] {
    fill: ${colour("card")};
    stroke-width: 1.75;
  }
  [data-role="gap"],
  [data-role="danger"] {
    fill: none;
    stroke: ${colour("point")};
    stroke-width: 2.5;
  }
  [data-role="danger"] {
    stroke: ${colour("stop")};
  }
  [data-role="path"] {
    fill: none;
    stroke: ${colour("point")};
    stroke-width: 1.75;
  }
  [data-role="track"] {
    fill: ${colour("sheet")};
  }
  [data-role="piece"] {
    fill: ${colour("partFill")};
    stroke: ${colour("act")};
  }
  [data-lit].outlined {
    stroke: ${colour("point")};
    stroke-width: 2.5;
  }
  .hatch {
    stroke: ${colour("soft")};
    stroke-width: 0.9;
  }
  .hatch-part {
    stroke: ${colour("act")};
    stroke-width: 0.9;
  }
  .ground-jaw {
    fill: ${colour("jawFill")};
  }
  .ground-master {
    fill: ${colour("masterFill")};
  }
  .ground-part {
    fill: ${colour("partFill")};
  }
  .dots {
    fill: ${colour("act")};
  }
  .cross {
    stroke: ${colour("caution")};
    stroke-width: 0.9;
  }
  .label {
    fill: ${colour("ink")};
    paint-order: stroke;
    stroke: ${colour("card")};
    stroke-width: 4;
    stroke-linejoin: round;
  }
  .label[data-lit] {
    fill: ${colour("pointInk")};
  }
  .leader {
    stroke: ${colour("soft")};
    stroke-width: 1;
  }
`;

const Looking = styled.div`
  position: absolute;
  inset: 0;
  touch-action: pan-x pan-y;
  cursor: grab;
  &[data-close] {
    touch-action: none;
  }
  &:active {
    cursor: grabbing;
  }
  &:focus-visible {
    outline-offset: -${sizes.thick};
  }
`;

const Buttons = styled.div`
  position: absolute;
  right: ${space(2.5)};
  bottom: ${space(1.5)};
  display: flex;
  gap: ${space(1)};
  background: ${colour("card")};
  button {
    min-width: 28px;
    min-height: 28px;
    padding: 0 ${space(1.5)};
    text-align: center;
    text-decoration: none;
    font: 400 ${type.label} ${face.narrow};
  }
  button[data-disabled] {
    color: ${colour("soft")};
  }
  @media ${fold.tablet} {
    button {
      min-width: ${sizes.touch};
      min-height: ${sizes.touch};
    }
  }
`;

/** Each material its own angle and pitch: jaw 45° wide, master jaw 135° narrow, part 60° close. */
const HATCHES = [
  { role: "jaw", angle: 135, pitch: 9 },
  { role: "master", angle: 45, pitch: 6 },
  { role: "part", angle: 60, pitch: 5 },
] as const;

function Hatches({ id }: { id: string }) {
  return (
    <defs>
      {HATCHES.map(({ role, angle, pitch }) => (
        <pattern
          key={role}
          id={`${id}-${role}`}
          width={pitch}
          height={pitch}
          patternUnits="userSpaceOnUse"
          patternTransform={`rotate(${angle})`}
        >
          <rect className={`ground-${role}`} width={pitch} height={pitch} />
          <line className={role === "part" ? "hatch-part" : "hatch"} x1="0" y1="0" x2={pitch} y2="0" />
        </pattern>
      ))}
      <pattern
        id={`${id}-cross`}
        width="7"
        height="7"
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path className="cross" d="M0 0H7M0 0V7" />
      </pattern>
      <pattern id={`${id}-dots`} width="6" height="6" patternUnits="userSpaceOnUse">
        <circle className="dots" cx="1.5" cy="1.5" r="1" />
        <circle className="dots" cx="4.5" cy="4.5" r="1" />
      </pattern>
    </defs>
  );
}

const FILLS: Partial<Record<Shape["role"], string>> = {
  jaw: "jaw",
  master: "master",
  part: "part",
  cut: "dots",
  removed: "dots",
  keepout: "cross",
};

type ShapeProps = {
  shape: Shape;
  at: Projection;
  id: string;
  lit: boolean;
  /** It moves along its path, once. */
  isSwept: boolean;
  onLight: (name: string | null) => void;
};

/** Where a shape begins, in px from where it stands. */
function fromOf(shape: Shape, at: Projection) {
  const [x = 0, y = 0] = shape.slides ?? [];
  return { "--from-x": `${x * at.scale}px`, "--from-y": `${-y * at.scale}px` } as CSSProperties;
}

function Drawn({ shape, at, id, lit, isSwept, onLight }: ShapeProps) {
  const slides = isSwept && Boolean(shape.slides);
  const points = shape.points.map(([x = 0, y = 0]) => `${at.x(x).toFixed(2)},${at.y(y).toFixed(2)}`);
  const fill = FILLS[shape.role];
  const [first] = shape.facts;
  return (
    <path
      className="outlined"
      data-role={shape.role}
      data-shape={shape.name}
      data-lit={lit || undefined}
      data-slides={slides || undefined}
      style={slides ? fromOf(shape, at) : undefined}
      d={`M${points.join("L")}${shape.closed ? "Z" : ""}`}
      fill={fill ? `url(#${id}-${fill})` : undefined}
      onPointerEnter={first ? () => onLight(first) : undefined}
      onPointerLeave={first ? () => onLight(null) : undefined}
    />
  );
}

type Props = {
  scene: Scene;
  stop: string;
  lit: string | null;
  /** The facts in view: of what belongs to others nothing is drawn. */
  group?: string | undefined;
  /** Tools are led along their paths. */
  isPlaying?: boolean;
  /** The facts before or after these, by the arrow keys. */
  onStep?: ((by: 1 | -1) => void) | undefined;
  changed: (fact: string) => boolean;
  onLight: (name: string | null) => void;
};

const STEPS: ReadonlyMap<string, 1 | -1> = new Map([
  ["ArrowLeft", -1],
  ["ArrowRight", 1],
]);

/** The half-section, to scale, from the server's scene in mm; the browser only projects it. */
export function Section(props: Props) {
  const { scene, stop, lit, group, isPlaying = false, onStep, changed, onLight } = props;
  const id = useId();
  const frame = useRef<HTMLDivElement>(null);
  const size = useSize(frame);
  const { shapes, usual, pointed, labels, fitted, bottom } = layout(scene, { stop, group, lit }, size);
  const looking = useRef<HTMLDivElement>(null);
  const { view, isWidest, closer, wider, fit, onKeyDown } = useView(looking, size, bottom);
  const at = seen(fitted, view);
  const places = placeTexts({ usual, labels, pointed }, at, size, [buttonsTaken(size)]);
  const isClose = view.k > 1;
  const dimensions = [...usual, ...pointed];
  return (
    <Frame ref={frame}>
      <Looking
        ref={looking}
        data-close={isClose || undefined}
        role="group"
        aria-label="Drawing: plus and minus look closer and wider, arrows move, zero fits"
        tabIndex={0}
        onKeyDown={(event) => {
          const by = isClose ? undefined : STEPS.get(event.key);
          if (onStep && by) {
            event.preventDefault();
            onStep(by);
          } else onKeyDown(event);
        }}
      >
        {size.width > 0 && (
          <Drawing role="img" aria-label={scene.words.join(" ")}>
            <Hatches id={id} />
            {shapes.map((shape) => (
              <Drawn
                key={`${shape.name} ${isPlaying}`}
                shape={shape}
                isSwept={isPlaying}
                at={at}
                id={id}
                lit={lit !== null && shape.facts.includes(lit)}
                onLight={onLight}
              />
            ))}
            {labels.map((x, i) => {
              const box = places.labels[i];
              if (!box) return null;
              const point = { x: at.x(x.point[0] ?? 0), y: at.y(x.point[1] ?? 0) };
              return (
                <g key={x.text}>
                  <Leader box={box} point={point} />
                  <text
                    className="label"
                    data-lit={(lit !== null && x.fact === lit) || undefined}
                    // Letters are counted wider than they are: what begins at one line still does.
                    x={x.anchor === "start" ? box.x : box.x + box.width / 2}
                    y={box.y + 0.76 * box.height}
                    textAnchor={x.anchor === "start" ? "start" : "middle"}
                  >
                    {x.text}
                  </text>
                </g>
              );
            })}
            {dimensions.map((dimension) => (
              <DimensionLine
                key={dimension.name}
                dimension={dimension}
                at={at}
                box={places.figures.get(dimension.name) ?? null}
                lit={lit === dimension.fact}
                changed={changed(dimension.fact)}
                onLight={onLight}
              />
            ))}
          </Drawing>
        )}
      </Looking>
      <Buttons role="group" aria-label="Look at the drawing">
        <TextButton onPress={closer} aria-label="Closer">
          +
        </TextButton>
        <TextButton onPress={wider} isDisabled={isWidest} aria-label="Wider">
          −
        </TextButton>
        <TextButton onPress={fit} isDisabled={view.k === 1}>
          Fit
        </TextButton>
      </Buttons>
    </Frame>
  );
}
