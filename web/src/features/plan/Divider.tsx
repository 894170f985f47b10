import { useRef, useState } from "react";
import { useMove } from "react-aria";
import styled from "styled-components";
import { colour, fold, size } from "../../shared/ui/theme";

const Bar = styled.div`
  grid-area: divider;
  height: 9px;
  margin: -4px 0;
  z-index: 1;
  cursor: row-resize;
  touch-action: none;
  display: grid;
  place-items: center;
  &::before {
    content: "";
    width: 48px;
    height: 3px;
    background: ${colour("hairline")};
  }
  &:hover::before,
  &:focus-visible::before {
    background: ${colour("act")};
  }
  &:focus-visible {
    outline: ${size.thick} solid ${colour("act")};
    outline-offset: -3px;
  }
  @media ${fold.tablet} {
    /* Below the middle of the picture: beside it the picture has buttons. */
    justify-self: start;
    width: 120px;
    height: ${size.touch};
    margin: -22px 0 -22px calc((100% - ${size.foldedSlip}) / 2 - 60px);
  }
  @media ${fold.phone} {
    display: none;
  }
`;

export const LEAST = 20;
const MOST = 80;
const STEP = 2;
const KEY = "noble-anvil-share";

/** The shares of the height that were chosen, by stop, in %. */
function chosen(): Record<string, number> {
  try {
    return JSON.parse(localStorage.getItem(KEY) ?? "{}") as Record<string, number>;
  } catch {
    return {};
  }
}

/** How much of the height the picture of a stop was given, in %; undefined where nothing was chosen. */
export function useShare(stop: string) {
  const [all, setAll] = useState(chosen);
  const put = (share: number) => {
    const next = { ...all, [stop]: Math.round(Math.min(MOST, Math.max(LEAST, share))) };
    setAll(next);
    localStorage.setItem(KEY, JSON.stringify(next));
  };
  const here = all[stop];
  return [typeof here === "number" && here >= LEAST && here <= MOST ? here : undefined, put] as const;
}

type Props = { share: number; onShare: (share: number) => void };

/** Between picture and facts: dragged, or moved by the arrow keys. */
export function Divider({ share, onShare }: Props) {
  const bar = useRef<HTMLDivElement>(null);
  const at = useRef(share);
  const { moveProps } = useMove({
    onMoveStart: () => {
      at.current = share;
    },
    onMove: ({ deltaY, pointerType }) => {
      const height = bar.current?.parentElement?.clientHeight ?? 0;
      if (pointerType === "keyboard") at.current += Math.sign(deltaY) * STEP;
      else if (height > 0) at.current += (deltaY / height) * 100;
      onShare(at.current);
    },
  });
  return (
    <Bar
      {...moveProps}
      ref={bar}
      role="separator"
      aria-label="Height of the picture"
      aria-orientation="horizontal"
      aria-valuenow={Math.round(share)}
      aria-valuemin={LEAST}
      aria-valuemax={MOST}
      aria-valuetext={`${Math.round(share)} %`}
      tabIndex={0}
    />
  );
}
