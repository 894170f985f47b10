"""How a plan stands in little, what facts are called, and the lists of a plan."""

from uuid import UUID

import pytest

from calc.errors import CalcError
from calc.fields import Choice, Flag, Quantity, Text
from calc.identity import Identities, ids_in
from calc.plan import edits
from calc.plan.document import Document, new_document, with_stock_length
from calc.plan.labels import label_of, value_text
from calc.plan.lists import NewItem, as_lines, line_value, lines_value, list_at, new_item, refuse_taking_out
from calc.plan.paths import replaced, value_at
from calc.plan.standing import headline_text, moved, standing, standing_of
from calc.profile.steps import TurnedStep
from calc.reading import read, write
from calc.shelf.all_kinds import KINDS
from calc.shelf.taken import Shelf
from calc.tests.plans import CHUCK, DOCUMENT, MACHINE, MATERIAL, SHELF, STEEL, plan, with_facts
from calc.typed import typed_value

PLAIN = write(DOCUMENT)
BEGUN = replaced(new_document(), "part.profile.outside", (TurnedStep("Body", 84.0, 54.0, id="o1"),))
CUTS, STEPS = "setups.s1.cuts", "part.profile.outside"

VARIANTS = [
    {},
    {"setups__s1__force__pressure_bar": None},
    {"setups__s1__force__user_max_rpm": 300.0},
    {"setups__s1__hold__depth_mm": 39.0},
    {"part__quantity": None},
]


@pytest.mark.parametrize("facts", VARIANTS)
def test_in_little_it_stands_as_the_whole_plan_does(facts):
    little, whole = standing(with_facts(**facts), SHELF), plan(**facts)
    assert little.verdict == whole.verdict
    assert [(s.name, s.state, str(s.line)) for s in little.stops] == [
        (s.name, s.state, str(s.line)) for s in whole.stops
    ]
    assert little.headlines == standing_of(whole).headlines
    assert little.attention == {"stopped": 0, "open": 1, "settled": 2}[whole.verdict]


def test_what_is_needed_next_is_the_stopped_stop_before_the_open_one():
    assert standing(DOCUMENT, SHELF).needs.name == "tools"
    stopped = standing(with_facts(setups__s1__force__user_max_rpm=300.0), SHELF)
    assert stopped.needs.name == "force"


def test_a_new_run_has_no_figures_and_raises_nothing():
    empty = standing(new_document(), Shelf())
    assert (empty.verdict, set(empty.headlines.values())) == ("open", {None})
    begun = standing(BEGUN, SHELF)
    assert [s.state for s in begun.stops] == ["settled", "settled", "settled", "settled", *["open"] * 4]
    assert begun.headlines["bore"] == 84.0


def test_a_slugs_length_is_stock_on_its_faces_and_a_bars_stays_its_own():
    steps = (TurnedStep("Body", 84.0, 54.0, id="o1"),)
    known = replaced(replaced(new_document(), "part.profile.outside", steps), "part.stock.length_mm", 58.0)
    slug = with_stock_length(known)
    assert (slug.part.face_stock_mm, slug.part.stock.length_mm) == (2.0, None)
    bar = with_stock_length(replaced(known, "part.stock.form", "bar"))
    assert (bar.part.face_stock_mm, bar.part.stock.length_mm) == (0.0, 58.0)
    with pytest.raises(CalcError, match=r"The part is 54\smm long"):
        with_stock_length(replaced(known, "part.stock.length_mm", 50.0))


def test_headlines_that_moved():
    before = {"cap": 2350.0, "bore": 84.0, "depth": None}
    assert moved(before, {"cap": 2480.0, "bore": 84.0, "depth": 20.0}) == {
        "cap": [2350.0, 2480.0],
        "depth": [None, 20.0],
    }
    assert moved(before, dict(before)) == {}
    assert headline_text("cap", 2480.9, "metric") == "2\u202f480\xa0rpm"  # never rounded up
    assert headline_text("bore", 84.0, "inch") == "3.307\xa0in"
    assert headline_text("cap", None, "metric") == "not known"


@pytest.mark.parametrize(
    ("path", "called"),
    [
        ("part.quantity", "Quantity"),
        ("part.profile.outside.o1.diameter_mm", "Spigot diameter"),
        ("part.profile.outside.o2.name", "Name of Flange"),
        ("part.profile.inside.i1.diameter_mm", "Bore diameter"),
        ("setups.s1.force.pressure_bar", "Gauge pressure"),
        ("setups.s1.cuts.c2.feed_mm_rev", "Turn: feed"),
        ("setups.s1.cuts.c10.feed_mm_rev", "Feed"),
        ("setups.s1.cuts", "Cuts"),
        ("part.profile.outside", "Outside steps"),
        ("part.profile.outside.o2", "Flange"),
        ("nothing.here", "nothing.here"),
    ],
)
def test_what_facts_are_called(path, called):
    assert label_of(PLAIN, path) == called


@pytest.mark.parametrize(
    ("spec", "value", "reads"),
    [
        (Quantity("Pressure", "bar"), 18.0, "18\xa0bar"),
        (Quantity("Pressure", "bar"), None, "empty"),
        (Quantity("Pieces", "", whole=True), 240, "240"),
        (Choice("Seat", {"floor": "the floor"}), "floor", "the floor"),
        (Choice("Seat", {"floor": "the floor"}), "gone", "gone"),
        (Flag("Centre"), True, "yes"),
        (Flag("Centre"), False, "no"),
        (Text("Name"), "", "empty"),
        (Text("Name"), "Face", "Face"),
        (None, [{"name": "Face"}, {"name": "Turn"}], "Face, Turn"),
        (None, [], "none"),
    ],
)
def test_how_values_read(spec, value, reads):
    assert value_text(spec, value, "metric") == reads


def given(said, kind=None):
    return NewItem(said, kind)


def ids():
    return Identities(UUID(int=5), ids_in(PLAIN))


def with_item(document, path, said, kind=None):
    """The document with one more item at the end of a list."""
    made = new_item(document, path, given(said, kind), ids())
    return edits.with_change(document, f"{path}.{made['id']}", edits.put(made, edits.last_of(document, path)))


def test_an_item_goes_in_at_the_end_and_comes_out_by_its_id():
    longer = with_item(PLAIN, CUTS, "  Skim   cut ", "turn")
    items = value_at(longer, CUTS)
    assert [c["name"] for c in items] == ["Face", "Turn", "Skim cut"]
    assert items[:2] == PLAIN["setups"][0]["cuts"]
    read(Document, longer)  # the core takes it
    path = f"{CUTS}.{items[2]['id']}"
    assert edits.with_change(longer, path, None) == PLAIN
    back = edits.state_at(longer, path, None)
    assert edits.with_change(PLAIN, path, back) == longer


def test_two_items_may_have_the_same_name():
    twice = with_item(PLAIN, CUTS, "face", "face")
    assert [c["name"] for c in value_at(twice, CUTS)] == ["Face", "Turn", "face"]
    assert len(set(ids_in(read(Document, twice) and twice))) == len(list(ids_in(twice)))


@pytest.mark.parametrize(
    ("change", "says"),
    [
        (lambda: new_item(PLAIN, CUTS, given(" ", "turn"), ids()), "a name"),
        (lambda: new_item(PLAIN, CUTS, given("a\x00", "turn"), ids()), "a name"),
        (lambda: new_item(PLAIN, CUTS, given("Skim"), ids()), "turning"),
        (lambda: new_item(PLAIN, "part", given("Skim"), ids()), "no such list"),
        (lambda: refuse_taking_out(PLAIN, CUTS + ".c3"), "no such cut"),
        (lambda: refuse_taking_out(PLAIN, CUTS), "no such list"),
        (lambda: refuse_taking_out(PLAIN, "setups.s1"), "stays"),
        (lambda: new_item(PLAIN, STEPS, given("90 q7 x 3"), ids()), "tolerance class"),
        (lambda: line_value(PLAIN, STEPS + ".o1", "84,500 x 3", "metric"), "two ways"),
        (lambda: line_value(PLAIN, STEPS + ".o9", "84 x 3", "metric"), "no such step"),
        (lambda: lines_value(PLAIN, STEPS, "84 x 3\nfoo", "metric", ids()), "Line 2"),
        (lambda: lines_value(PLAIN, STEPS, "", "metric", ids()), "1 to 30 lines"),
    ],
)
def test_what_a_list_refuses(change, says):
    with pytest.raises(CalcError) as caught:
        change()
    assert says in caught.value.errors[0].message


def test_a_line_makes_the_step_and_the_list_reads_back():
    line = line_value(PLAIN, STEPS + ".o1", "84 h7 x 40 Ra 1.6", "metric")
    assert (line["name"], line["fit"], line["length_mm"], line["id"]) == ("Spigot", "h7", 40.0, "o1")  # its name stays
    assert line_value(PLAIN, STEPS + ".o1", "Hub: 84 x 40", "metric")["name"] == "Hub"
    steps = PLAIN["part"]["profile"]["outside"]
    lines = as_lines(DOCUMENT.part.profile.outside, "metric")
    assert lines_value(PLAIN, STEPS, lines, "metric", ids()) == steps
    assert value_at(with_item(PLAIN, STEPS, "90 x 3"), STEPS)[2]["name"] == "Step 3"
    assert [s["name"] for s in with_item(PLAIN, "setups", "The other")["setups"]] == ["Side 2", "The other"]


def test_a_list_has_an_end():
    full = PLAIN
    for i in range(list_at(STEPS).most - 2):
        made = new_item(full, STEPS, given(f"Ring {i}: 90 x 1"), Identities(UUID(int=100 + i), ids_in(full)))
        full = edits.with_change(full, f"{STEPS}.{made['id']}", edits.put(made, edits.last_of(full, STEPS)))
    with pytest.raises(CalcError) as caught:
        new_item(full, STEPS, given("90 x 1"), ids())
    assert "30" in caught.value.errors[0].message


def flat(value):
    plain = write(value)
    force = plain.pop("force", {})
    return {n: v for n, v in (plain | force).items() if n not in ("chart", "typical")}


@pytest.mark.parametrize(("kind", "value"), [("machine", MACHINE), ("material", MATERIAL), ("jaw_blank", STEEL)])
def test_a_shelf_item_is_read_back_from_its_flat_row(kind, value):
    assert KINDS[kind].read(flat(value)) == value


def test_a_chuck_is_read_back_with_its_chart():
    chart = [(p.pressure_bar, p.grip_n) for p in CHUCK.force.chart]
    assert KINDS["chuck"].read({n: v for n, v in flat(CHUCK).items() if v is not None}, chart) == CHUCK
    with pytest.raises(CalcError) as caught:
        KINDS["chuck"].read(flat(CHUCK) | {"max_grip_n": -1, "max_rpm": 0}, chart)
    assert {e.field for e in caught.value.errors} == {"max_grip_n", "max_rpm"}
    with pytest.raises(CalcError) as caught:
        KINDS["chuck"].read(flat(CHUCK), [(5, 100), (10, 50)])
    assert [e.field for e in caught.value.errors] == ["chart"]


@pytest.mark.parametrize("kind", list(KINDS))
def test_every_field_of_the_shelf_says_what_it_is_and_where_it_is_found(kind):
    for item in KINDS[kind].fields:
        assert item.field.spec.label
        assert item.field.spec.help, item.name
        assert item.field.spec.where, item.name
        assert item.group


def test_what_is_given_for_a_field_is_read_by_its_declaration():
    speed = Quantity("Top speed", "rpm", above=0, high=5000, whole=True)
    assert typed_value("n", speed, "1200", nullable=False, system="metric") == 1200
    assert typed_value("n", speed, " ", nullable=True, system="metric") is None
    for given in ("", "x", "0", "5001", "12.5", True, [1]):
        with pytest.raises(CalcError) as caught:
            typed_value("n", speed, given, nullable=False, system="metric")
        assert caught.value.errors[0].field == "n"


def test_a_stop_that_is_stopped_says_why_in_its_line():
    # The blank is 50 high with bolt heads to 20: a pocket of 29 leaves 1 mm where 6 are wanted.
    thin = standing(with_facts(setups__s1__hold__depth_mm=29.0), SHELF)
    jaws = next(s for s in thin.stops if s.name == "jaws")
    assert jaws.state == "stopped"
    assert str(jaws.line) == next(n.text for n in jaws.notes if n.level == "stop")
    assert thin.needs is jaws
