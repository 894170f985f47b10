import { type ReactNode, useDeferredValue, useEffect, useState } from "react";
import { Form, Label, Slider, SliderThumb, SliderTrack } from "react-aria-components";
import { Link } from "react-router";
import styled from "styled-components";
import { fieldErrors, type Units } from "../../api/client";
import { AnyPicture } from "../../drawing/AnyPicture";
import { Button } from "../../shared/ui/Button";
import { Entry } from "../../shared/ui/Entry";
import { NoteBox } from "../../shared/ui/NoteBox";
import { AppHeader, Blank } from "../../shared/ui/Page";
import { Segments } from "../../shared/ui/Segments";
import { colour, face, fold, size, space, type } from "../../shared/ui/theme";
import { useLast } from "../../shared/useLast";
import { Bar, NoExercise, Sheet, UNITS } from "./ExerciseScreen";
import { type BenchSet, useApprentice } from "./queries";

const Whole = styled.div`
  display: grid;
  grid-template-columns: 18rem minmax(0, 1fr) minmax(0, 1fr);
  gap: ${space(4)} ${space(6)};
  align-items: start;
  @media ${fold.tablet} {
    grid-template-columns: minmax(0, 1fr) minmax(0, 1fr);
  }
  @media ${fold.phone} {
    grid-template-columns: minmax(0, 1fr);
  }
  section {
    display: grid;
    gap: ${space(3)};
  }
  h2 {
    font-size: ${type.title};
    font-weight: 600;
  }
  dl {
    display: grid;
    grid-template-columns: minmax(0, 1fr) auto;
    gap: ${space(1)} ${space(3)};
  }
  dt {
    font: 400 ${type.label}/1.4 ${face.narrow};
  }
  dd {
    font-weight: 600;
    text-align: right;
    font-variant-numeric: tabular-nums;
  }
  p[aria-hidden] {
    margin-bottom: -${space(2)};
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
`;

const Big = styled.p`
  font: 400 ${type.label}/1.2 ${face.narrow};
  strong {
    display: block;
    font: 600 ${type.answer}/1.15 ${face.plain};
    font-variant-numeric: tabular-nums;
  }
`;

const Held = styled(Slider)`
  display: grid;
  grid-template-columns: 1fr auto;
  gap: ${space(1)} ${space(3)};
  label {
    font: 400 ${type.label} ${face.narrow};
    color: ${colour("soft")};
  }
  output {
    font-weight: 600;
    font-variant-numeric: tabular-nums;
  }
`;

const Track = styled(SliderTrack)`
  grid-column: 1 / -1;
  height: ${size.touch};
  &::before {
    content: "";
    position: absolute;
    inset: calc(50% - 1px) 0 auto;
    height: 2px;
    background: ${colour("act")};
  }
`;

const Thumb = styled(SliderThumb)`
  top: 50%;
  width: 26px;
  height: 26px;
  background: ${colour("card")};
  border: 3px solid ${colour("act")};
  border-radius: 50%;
  cursor: grab;
  &[data-focus-visible] {
    background: ${colour("act")};
  }
`;

const Cuts = styled.ol`
  padding-left: ${space(5)};
  font-variant-numeric: tabular-nums;
`;

const SLIDERS = [
  { name: "pressure_bar", low: 5, high: 30, step: 0.5 },
  { name: "height_mm", low: 40, high: 90, step: 1 },
  { name: "rpm", low: 0, high: 3500, step: 50 },
] as const;
const LABELS = { pressure_bar: "Gauge pressure", height_mm: "Grip height", rpm: "Spindle speed" };
const GREASED = [
  { value: "today", label: "today" },
  { value: "week", label: "this week" },
  { value: "long", label: "long ago" },
];
const FIRST: BenchSet = { pressure_bar: 20, height_mm: 60, rpm: 1500, grease: "week" };
const another = () => Math.floor(Math.random() * 999_999);

/** A chuck to play with: what pressure, height, speed and grease do, and jaws to be brought even by blue. */
export function ApprenticeScreen({ tools }: { tools: ReactNode }) {
  const [set, setSet] = useState(FIRST);
  const [seed, setSeed] = useState(another);
  const [tapers, setTapers] = useState<string[]>([]);
  const [taper, setTaper] = useState("");
  const [units, setUnits] = useState<Units>("metric");
  const { data, error } = useApprentice(useDeferredValue(set), seed, tapers, units);
  const found = useLast(data);
  useEffect(() => {
    document.title = "The apprentice’s bench · Noble Anvil";
  }, []);
  if (!found && error) return <NoExercise error={error} />;
  if (!found) return <Blank>Setting up the bench …</Blank>;
  const wrong = fieldErrors(error)[`tapers.${tapers.length - 1}`] ?? fieldErrors(error).tapers_mm;
  const cut = () => {
    // What could not be read was no cut: it is written again.
    setTapers((all) => [...(wrong ? all.slice(0, -1) : all), withUnit(taper, found.unit)]);
    setTaper("");
  };
  const anew = () => {
    setTapers([]);
    setTaper("");
    setSeed(another());
  };
  const turn = (change: Partial<BenchSet>) => {
    setSet((s) => ({ ...s, ...change }));
    // Another force bends the jaws otherwise: they are cut anew.
    if (!("rpm" in change)) setTapers([]);
  };
  const [first, ...rest] = found.figures;
  return (
    <>
      <AppHeader title="The apprentice’s bench" tools={tools} />
      <Sheet>
        <Bar>
          <Link to="/practice">All subjects</Link>
          <span>A chuck that throws nothing. Move what you like, and look at what answers.</span>
          <Segments
            label="Units"
            value={units}
            options={UNITS}
            onChange={(v) => setUnits(v === "inch" ? "inch" : "metric")}
          />
        </Bar>
        <Whole>
          <section aria-label="The chuck">
            <h2>The chuck</h2>
            {SLIDERS.map((s, i) => (
              <Held
                key={s.name}
                value={set[s.name]}
                minValue={s.low}
                maxValue={s.high}
                step={s.step}
                onChange={(value) => turn({ [s.name]: Number(value) })}
              >
                <Label>{LABELS[s.name]}</Label>
                <output>{found.shown[i]?.value}</output>
                <Track>
                  <Thumb />
                </Track>
              </Held>
            ))}
            <p aria-hidden>Greased</p>
            <Segments
              label="Greased"
              value={set.grease}
              options={GREASED}
              onChange={(grease) => turn({ grease })}
            />
            {found.told.map((t) => (
              <NoteBox key={t} level="caution">
                {t}
              </NoteBox>
            ))}
          </section>
          <section aria-label="What it holds" aria-live="polite">
            {first && (
              <Big>
                {first.label}
                <strong>{first.value}</strong>
              </Big>
            )}
            <AnyPicture graph={found.curve} height="15rem" />
            <dl>
              {rest.map((f) => [
                <dt key={`${f.label} label`}>{f.label}</dt>,
                <dd key={f.label}>{f.value}</dd>,
              ])}
            </dl>
            <AnyPicture scene={found.wall} height="15rem" />
          </section>
          <section aria-label="The jaws">
            <h2>Bring the jaws even</h2>
            <p>
              The estimate is below the truth, and only the blue knows by how much. Cut a taper, look at the
              blue, cut again: as few times as you can.
            </p>
            <AnyPicture scene={found.blue} height="15rem" />
            <Cuts>
              {found.cuts.map((c, i) => (
                <li key={`${i} ${c.taper}`}>
                  {c.taper}: {c.shows}
                </li>
              ))}
            </Cuts>
            <p role="status">{found.words}</p>
            {found.done || tapers.length >= 9 ? (
              <p>
                <Button onPress={anew}>A new set of jaws</Button>
              </p>
            ) : (
              <Form
                aria-label="Cut the jaws"
                onSubmit={(event) => {
                  event.preventDefault();
                  if (taper.trim()) cut();
                }}
              >
                <Entry
                  label={`Taper, on diameter, ${found.unit}`}
                  value={taper}
                  error={taper === "" ? wrong : undefined}
                  onChange={setTaper}
                />
                <p>
                  <Button type="submit" isDisabled={taper.trim() === ""}>
                    Cut the jaws
                  </Button>
                </p>
              </Form>
            )}
          </section>
        </Whole>
      </Sheet>
    </>
  );
}

/** A bare figure keeps its unit, so that a switch of units reads nothing anew. */
function withUnit(text: string, unit: string): string {
  return /^[\s\d.,/+−-]+$/.test(text) ? `${text.trim()} ${unit}` : text;
}
