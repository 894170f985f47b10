import type { ReactNode, Ref } from "react";
import { Link } from "react-router";
import styled from "styled-components";
import type { Answer, Help, Note, Stop } from "../../api/client";
import { Button, TextButton } from "../../shared/ui/Button";
import { NoteBox } from "../../shared/ui/NoteBox";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import type { Changes } from "./changes";
import type { Latest } from "./kept";

const Aside = styled.aside`
  padding: ${space(4)} ${space(4.5)};
  border-left: ${size.line} solid ${colour("hairline")};
  overflow: auto;
  @media ${fold.phone} {
    border-left: 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
    overflow: visible;
  }
`;

const Block = styled.section`
  padding-bottom: ${space(3)};
  margin-bottom: ${space(3)};
  border-bottom: ${size.line} solid ${colour("hairline")};
  h2 {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  &[data-lit] h2 {
    color: ${colour("pointInk")};
  }
`;

const Figure = styled.p`
  font-size: ${type.answer};
  font-weight: 600;
  line-height: 1.1;
  white-space: nowrap;
  &[data-words] {
    white-space: normal;
  }
  small {
    font-size: ${type.run};
    font-weight: 400;
    color: ${colour("soft")};
  }
`;

const Below = styled.p`
  font: 400 ${type.label}/1.25 ${face.narrow};
  color: ${colour("soft")};
  &[data-moved] {
    color: ${colour("pointInk")};
  }
`;

const Track = styled.div`
  position: relative;
  height: 14px;
  margin: ${space(1)} 0;
  border: ${size.line} solid ${colour("ink")};
  i {
    position: absolute;
    inset: 0 auto 0 0;
    background: ${colour("ink")};
  }
  b {
    position: absolute;
    top: -5px;
    bottom: -5px;
    width: 3px;
    margin-left: -1px;
    background: ${colour("point")};
    outline: 1px solid ${colour("sheet")};
  }
`;

const Rest = styled.div`
  display: grid;
  gap: ${space(3)};
`;

const Helps = styled.section`
  &[aria-busy] {
    opacity: 0.5;
  }
  h2 {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  li {
    display: grid;
    grid-template-columns: 1fr auto;
    gap: ${space(0.5)} ${space(2)};
    align-items: center;
    padding: ${space(1.5)} 0;
    border-bottom: ${size.line} solid ${colour("hairline")};
  }
  strong {
    font-weight: 600;
    white-space: nowrap;
  }
  button {
    text-align: left;
  }
`;

const Steps = styled.section`
  h2 {
    margin-bottom: ${space(1)};
    font: 600 ${type.label} ${face.narrow};
  }
  ol {
    padding-left: ${space(5)};
    list-style: decimal;
    line-height: 1.35;
  }
  li {
    padding-bottom: ${space(1.5)};
  }
`;

type AnswerProps = {
  answer: Answer;
  was: string | undefined;
  lit: boolean;
  isOpen: boolean;
  onWorking: () => void;
  onLight: (name: string | null) => void;
};

function AnswerBlock({ answer, was, lit, isOpen, onWorking, onLight }: AnswerProps) {
  const { bar } = answer;
  return (
    <Block
      data-lit={lit || undefined}
      data-answer={answer.name}
      onPointerEnter={() => onLight(answer.name)}
      onPointerLeave={() => onLight(null)}
    >
      <h2>{answer.label}</h2>
      {answer.number === "" ? (
        <Figure data-words>{answer.unit}</Figure>
      ) : (
        <Figure>
          {answer.prefix}
          {answer.number} <small>{answer.unit}</small>
        </Figure>
      )}
      {was !== undefined && <Below data-moved>was {was}</Below>}
      {bar && (
        <>
          <Track aria-hidden="true">
            <i style={{ width: `${bar.share * 100}%` }} />
            <b style={{ left: `${bar.mark * 100}%` }} />
          </Track>
          <Below>{bar.mark_label}</Below>
        </>
      )}
      {answer.below && <Below>{answer.below}</Below>}
      <TextButton
        onPress={onWorking}
        aria-expanded={isOpen}
        aria-label={`${isOpen ? "hide" : "show"} working: ${answer.label}`}
      >
        {isOpen ? "hide working" : "show working"}
      </TextButton>
    </Block>
  );
}

type Props = {
  /** What it says, to be measured. */
  ref?: Ref<HTMLDivElement>;
  stop: Stop;
  helps: Latest<Help[]>;
  changes: Changes;
  lit: string | null;
  working: string | null;
  onWorking: (answer: string | null) => void;
  onHelp: (help: Help) => void;
  onLight: (name: string | null) => void;
  /** What else belongs to this stop. */
  children?: ReactNode;
};

/** What a stop lacks, each as a way to the fact or to the stop that has it. */
function Lacking({ lacks, isAlone }: { lacks: NonNullable<Stop["lacks"]>; isAlone: boolean }) {
  return (
    <>
      {isAlone ? "" : ". "}
      {lacks.some((l) => l.path) ? "Missing" : "First"}:{" "}
      {lacks.map((lack, i) => (
        <span key={lack.label}>
          {i > 0 && ", "}
          <Link
            to={{ pathname: `../${lack.stop}`, hash: lack.path ? encodeURIComponent(lack.path) : "" }}
            relative="path"
          >
            {lack.label}
          </Link>
        </span>
      ))}
      .
    </>
  );
}

/** The answers of a stop, what must be said about them, and what would help. */
export function Slip({
  ref,
  stop,
  helps: tried,
  changes,
  lit,
  working,
  onWorking,
  onHelp,
  onLight,
  children,
}: Props) {
  const said = (level: Note["level"]) =>
    stop.notes
      .filter((n) => n.level === level)
      .map((n) => (
        <NoteBox key={n.code + n.text} level={level}>
          {n.text}
        </NoteBox>
      ));
  const lacks = stop.lacks ?? [];
  const stopped = stop.state === "stopped";
  const none = stopped && stop.notes.some((n) => n.level === "stop") && tried.content?.length === 0;
  const helps = tried.content && (tried.content.length > 0 || none) && (
    <Helps aria-label="What would help" aria-busy={tried.isLate || undefined}>
      <h2>{stopped ? "What would help" : "What would lift the cap"}</h2>
      {none && <p>No single change that was tried takes this away. What is said above has to change.</p>}
      <ul>
        {tried.content.map((help) => (
          <li key={`${help.path} ${help.label}`}>
            {help.takable && stopped ? (
              <Button onPress={() => onHelp(help)} isDisabled={tried.isLate}>
                {help.label}
              </Button>
            ) : (
              <span>{help.label}</span>
            )}
            <strong>{help.outcome}</strong>
          </li>
        ))}
      </ul>
    </Helps>
  );
  return (
    <Aside aria-label={`Answers of ${stop.title}`}>
      <div ref={ref}>
        {stop.answers.map((answer) => (
          <AnswerBlock
            key={answer.name}
            answer={answer}
            was={changes.get(`answer:${stop.key}:${answer.name}`)}
            lit={lit === answer.name}
            isOpen={working === answer.name}
            onWorking={() => onWorking(working === answer.name ? null : answer.name)}
            onLight={onLight}
          />
        ))}
        <Rest>
          {stop.problems.map((p) => (
            <NoteBox key={p.field + p.message} level="stop">
              {p.message}
            </NoteBox>
          ))}
          {stop.problems.length === 0 && (stop.answers.length === 0 || lacks.length > 0) && (
            <NoteBox level="info">
              {stop.answers.length === 0 && "Nothing to answer yet"}
              {lacks.length > 0 ? (
                <Lacking lacks={lacks} isAlone={stop.answers.length > 0} />
              ) : (
                <>: {stop.line}.</>
              )}
            </NoteBox>
          )}
          {said("stop")}
          {/* What would help comes first where it is needed, and after the cautions where it is not. */}
          {stopped && helps}
          {said("caution")}
          {!stopped && helps}
          {children}
          {stop.procedures.map((p) => (
            <Steps key={p.title} aria-label={p.title}>
              <h2>{p.title}</h2>
              <ol>
                {p.steps.map((s) => (
                  <li key={s}>{s}</li>
                ))}
              </ol>
            </Steps>
          ))}
          {said("info")}
        </Rest>
      </div>
    </Aside>
  );
}
