import { useState } from "react";
import { Form, Radio, RadioGroup } from "react-aria-components";
import styled from "styled-components";
import { fieldErrors, type PracticeExercise, type PracticeGrade, said } from "../../api/client";
import { AnyPicture } from "../../drawing/AnyPicture";
import { Steps } from "../../shared/quantity/Steps";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { Told } from "../../shared/ui/Page";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";

const Whole = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  gap: ${space(4)} ${space(6)};
  align-items: start;
  @media ${fold.tablet} {
    grid-template-columns: minmax(0, 1fr);
  }
  h3 {
    font-size: ${type.title};
    font-weight: 600;
  }
  dl {
    display: grid;
    grid-template-columns: auto minmax(0, 1fr);
    gap: ${space(1)} ${space(4)};
    margin: ${space(3)} 0;
  }
  dt {
    color: ${colour("soft")};
  }
  dd {
    font-weight: 600;
    font-variant-numeric: tabular-nums;
  }
`;

const Options = styled(RadioGroup)`
  display: grid;
  gap: ${space(2)};
  margin-bottom: ${space(3)};
`;

const Option = styled(Radio)`
  display: flex;
  gap: ${space(3)};
  align-items: center;
  min-height: ${size.touch};
  padding: ${space(1)} ${space(3)};
  background: ${colour("card")};
  border: ${size.line} solid ${colour("hairline")};
  cursor: pointer;
  &::before {
    content: "";
    flex: none;
    width: 14px;
    height: 14px;
    border: ${size.thick} solid ${colour("act")};
    border-radius: 50%;
  }
  &[data-selected] {
    border-color: ${colour("act")};
    font-weight: 600;
  }
  &[data-selected]::before {
    background: ${colour("act")};
  }
  &[data-focus-visible] {
    outline: ${size.thick} solid ${colour("act")};
  }
  &[data-disabled] {
    cursor: default;
  }
`;

const Graded = styled.section`
  display: grid;
  gap: ${space(2)};
  padding: ${space(3)};
  background: ${colour("card")};
  border-left: 8px solid ${colour("hairline")};
  strong {
    font: 600 ${type.title} ${face.plain};
  }
  &[data-verdict="right"] {
    border-color: ${colour("act")};
  }
  &[data-verdict="close"] {
    border-color: ${colour("point")};
  }
  &[data-verdict="wrong"] {
    border-color: ${colour("caution")};
  }
  &[data-verdict="dangerous"] {
    border-color: ${colour("stop")};
  }
  &[data-verdict="dangerous"] strong {
    color: ${colour("stop")};
  }
  summary {
    cursor: pointer;
  }
`;

const WORDS: Record<PracticeGrade["verdict"], string> = {
  right: "Right.",
  close: "Close, not right.",
  wrong: "Wrong.",
  dangerous: "Dangerous.",
};

type Props = {
  exercise: PracticeExercise["exercise"];
  grade: PracticeGrade | null;
  error: unknown;
  isBusy: boolean;
  onAnswer: (given: string) => void;
  onNext: (() => void) | null;
};

/** A question with its picture, an answer to it, and how good that was. */
export function Question({ exercise, grade, error, isBusy, onAnswer, onNext }: Props) {
  const [given, setGiven] = useState("");
  const errors = fieldErrors(error);
  return (
    <Whole>
      <div>
        <h3>{exercise.ask}</h3>
        <dl>
          {exercise.known.map((k) => [
            <dt key={`${k.label} label`}>{k.label}</dt>,
            <dd key={k.label}>{k.value}</dd>,
          ])}
        </dl>
        <Form
          aria-label="Your answer"
          onSubmit={(event) => {
            event.preventDefault();
            if (!grade) onAnswer(given);
          }}
        >
          {exercise.kind === "choice" ? (
            <Options aria-label={exercise.ask} value={given} isDisabled={grade !== null} onChange={setGiven}>
              {exercise.options.map((o) => (
                <Option key={o.value} value={o.value}>
                  {o.label}
                </Option>
              ))}
            </Options>
          ) : (
            <Entry
              label={`${exercise.label}${exercise.unit ? `, ${exercise.unit}` : ""}`}
              value={given}
              error={errors.given}
              isDisabled={grade !== null}
              onChange={setGiven}
              autoFocus
            />
          )}
          {!grade && (
            <p>
              <Button type="submit" isDisabled={isBusy || given.trim() === ""}>
                Answer
              </Button>
            </p>
          )}
        </Form>
        {error !== null && error !== undefined && !errors.given && <Told role="alert">{said(error)}</Told>}
      </div>
      <div>
        <AnyPicture scene={exercise.scene} graph={exercise.graph} height="20rem" />
        {grade && <Verdict grade={grade} onNext={onNext} />}
      </div>
    </Whole>
  );
}

function Verdict({ grade, onNext }: { grade: PracticeGrade; onNext: (() => void) | null }) {
  return (
    <Graded
      aria-label="Grade"
      data-verdict={grade.verdict}
      role={grade.verdict === "dangerous" ? "alert" : "status"}
    >
      <strong>{WORDS[grade.verdict]}</strong>
      <p>{grade.why}</p>
      {grade.machine && grade.machine !== grade.why && (
        <p>
          <b>At the machine:</b> {grade.machine}
        </p>
      )}
      {grade.verdict !== "right" && (
        <p>
          <b>Right is:</b> {grade.right}
        </p>
      )}
      <p>
        <b>The rule:</b> {grade.rule}
      </p>
      {grade.working.length > 0 && (
        <details>
          <summary>Show the working</summary>
          <Steps steps={grade.working} />
        </details>
      )}
      {onNext && (
        <p>
          <Button autoFocus onPress={onNext}>
            Next
          </Button>
        </p>
      )}
    </Graded>
  );
}
