import { useRef, useState } from "react";
import { mergeProps, useFocus, useKeyboard, useMove } from "react-aria";
import styled from "styled-components";
import type { Board, BoardRun } from "../../api/client";
import { hidden } from "../../shared/ui/Page";
import { colour, face, size, space, type } from "../../shared/ui/theme";
import { bounds, onTheWall, placeOf } from "./scale";

const HOUR = 3600;
const DAY = 24 * HOUR;

const Block = styled.button`
  position: absolute;
  top: ${space(1)};
  bottom: ${space(1)};
  display: block;
  min-width: 6px;
  padding: 0 ${space(1)};
  text-align: left;
  white-space: nowrap;
  color: ${colour("ink")};
  background: ${colour("partFill")};
  border: ${size.line} solid ${colour("ink")};
  border-left-width: 4px;
  border-radius: ${size.radius};
  font: 400 ${type.small}/1.25 ${face.narrow};
  touch-action: none;
  b {
    font-weight: 600;
  }
  &[data-may-move] {
    cursor: grab;
  }
  &[data-held] {
    cursor: grabbing;
    z-index: 1;
    border-color: ${colour("point")};
    will-change: transform;
  }
  &[data-slips] {
    border-left-color: ${colour("caution")};
  }
  &[data-verdict="stopped"] {
    border-left-color: ${colour("stop")};
  }
`;

/** The set-up, before the pieces come. */
const SetUp = styled.span`
  position: absolute;
  inset: 0 auto 0 0;
  background: ${colour("steel")};
  border-right: ${size.line} dashed ${colour("ink")};
`;

/* They may stand out of a short run: the next one covers what is in its way. */
const Words = styled.span`
  position: relative;
  display: block;
`;

const Unseen = styled.span`
  ${hidden}
`;

type Props = {
  run: BoardRun;
  board: Board;
  onMove: (begins: number) => void;
  /** Where it stands while it is held, in words; empty when it is let go. */
  onHeld: (words: string) => void;
};

/** A run on its machine: dragged along its days, or moved by the arrows an hour, with Shift a day; Enter keeps it. */
export function RunBlock({ run, board, onMove, onHeld }: Props) {
  const block = useRef<HTMLButtonElement>(null);
  const moved = useRef(0);
  const [isHeld, setHeld] = useState(false);
  const place = placeOf(board);
  const [first, last] = bounds(board);
  const from = place(run.begins ?? run.start);
  const to = place(run.done ?? last);
  const set = place(run.running ?? run.begins ?? run.start);

  const mayMove = board.may_edit && run.moves;
  const at = () => (run.begins ?? run.start) + moved.current;
  // Straight to the element: a frame while dragging must not draw the board anew.
  const show = () => {
    const width = block.current?.parentElement?.clientWidth ?? 0;
    if (block.current)
      block.current.style.transform = moved.current
        ? `translateX(${(moved.current / (last - first)) * width}px)`
        : "";
  };
  const put = (seconds: number) => {
    moved.current = seconds;
    show();
    setHeld(seconds !== 0);
    onHeld(
      seconds === 0 ? "" : `${run.drawing_number} ${run.name} would begin ${onTheWall(at(), board.zone)}`,
    );
  };
  const keep = () => {
    if (moved.current !== 0) onMove(at());
    put(0);
  };
  const { moveProps } = useMove({
    onMoveStart: ({ pointerType }) => pointerType !== "keyboard" && setHeld(true),
    onMove: ({ deltaX, shiftKey, pointerType }) => {
      const width = block.current?.parentElement?.clientWidth ?? 1;
      if (pointerType === "keyboard") put(moved.current + Math.sign(deltaX) * (shiftKey ? DAY : HOUR));
      else {
        moved.current += (deltaX / width) * (last - first);
        show();
      }
    },
    onMoveEnd: ({ pointerType }) => {
      if (pointerType !== "keyboard") keep();
    },
  });
  const { keyboardProps } = useKeyboard({
    onKeyDown: (event) => {
      if (event.key === "Enter") keep();
      else if (event.key === "Escape") put(0);
      else event.continuePropagation();
    },
  });
  const { focusProps } = useFocus({ onBlur: () => put(0) });
  return (
    <Block
      type="button"
      ref={block}
      {...(mayMove ? mergeProps(moveProps, keyboardProps, focusProps) : {})}
      data-may-move={mayMove || undefined}
      data-held={isHeld || undefined}
      data-slips={run.slips ? true : undefined}
      data-verdict={run.verdict}
      style={{ left: `${from}%`, width: `${Math.max(0, to - from)}%` }}
    >
      <SetUp aria-hidden style={{ width: `${to > from ? ((set - from) / (to - from)) * 100 : 0}%` }} />
      <Words>
        <b>{run.drawing_number}</b> {run.name}
        <Unseen>
          {run.goes ? `began ${run.begins_said}, ${run.goes}` : `set-up begins ${run.begins_said}`}
          {run.slips && `, ${run.slips}`},
        </Unseen>
      </Words>
      <Words>
        {run.slips ? "slips · " : run.goes && !run.moves ? "runs · " : ""}done {run.done_said}
      </Words>
    </Block>
  );
}
