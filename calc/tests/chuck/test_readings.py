import pytest

from calc.chuck.book import ChartPoint, ChuckForce
from calc.chuck.calibration import Calibration, condition_of_fit, trend_of, usable
from calc.chuck.fit import GaugePoint, GripFitInput, grip_fit
from calc.chuck.readings import read_readings
from calc.errors import CalcError


@pytest.mark.parametrize(
    "text",
    [
        "rpm; grip kN\n0; 40\n1000; 38.5\n",
        "grip N\trpm\n40000\t0\n38500\t1000",
        "rpm,grip [N]\n0,40000\n1000,38500",
        "speed (1/min); grip kN\n\n0; 40.0\n1 000; 38.5",
        "rpm grip_kN".replace("_", "") + "\n0 40\n1000 38.5",
    ],
)
def test_tables_in_several_forms(text):
    assert [(p.rpm, p.grip_n) for p in read_readings(text)] == [
        (0, pytest.approx(40_000)),
        (1000, pytest.approx(38_500)),
    ]


def test_pounds_are_read_as_such():
    assert read_readings("rpm; grip lbf\n0; 1000")[0].grip_n == pytest.approx(4448.2216)


@pytest.mark.parametrize(
    ("text", "words"),
    [
        ("", "no readings yet"),
        ("0; 40", "no column known"),
        ("rpm; pressure bar\n0;4", "no column known"),
        ("rpm; grip\n0; 40", "Say the unit"),
        ("rpm; grip tons\n0; 40", "Say the unit"),
        ("rpm Hz; grip N\n0; 40", "Speed is read in rpm"),
        ("rpm; rpm\n0; 40", "Two columns"),
        ("rpm; grip kN\n0; 40,5", "Write 40.5"),
        ("rpm; grip kN\n0; forty", "not a figure"),
        ("rpm; grip kN\n0", "1 columns"),
        ("rpm; grip kN\n0; 40\n500; 39\n0; 40", "Line 4 is line 2 again"),
        ("rpm; grip kN\n0;40\n900;39\n500;39.5\n700;39.2", "falls and rises again at reading 4"),
        ("rpm; grip kN\n-5; 40", "Line 2"),
        ("rpm; grip kN\n" + "\n".join(f"{i}; 1" for i in range(5001)), "5000 readings at most"),
    ],
)
def test_what_cannot_be_read_says_the_line_and_what_to_do(text, words):
    with pytest.raises(CalcError, match=words):
        read_readings(text)


def test_up_and_down_again_is_one_run():
    assert len(read_readings("rpm; grip kN\n0;40\n900;39\n1500;37\n900;39.5\n0;40.4")) == 5


def test_every_wrong_line_is_told():
    with pytest.raises(CalcError) as told:
        read_readings("rpm; grip kN\n0; x\n1; y\n2; 40")
    assert len(told.value.errors) == 2


CHUCK = ChuckForce(100_000, 40, 60, 80, 0.08, (ChartPoint(5, 12_500), ChartPoint(40, 100_000)))


def test_condition_is_measured_over_the_book_at_that_height():
    assert condition_of_fit(64_000, 32, 60, CHUCK) == pytest.approx(0.8)
    # At 140 mm height costs (1 + 0.24·0.75)/(1 + 0.24·1.75) = 1.18/1.42 of the book.
    assert condition_of_fit(64_000, 32, 140, CHUCK) == pytest.approx(0.8 * 1.42 / 1.18)


def test_transmission_holds_for_the_jaws_it_was_measured_with():
    run = Calibration(0.9, 0.93, "2026-11-01", "set-7")
    assert (run.transmission_for("set-7"), run.transmission_for("set-8"), run.transmission_for(None)) == (0.93, 1, 1)
    assert Calibration(0.9, 0.93, "2026-11-01").transmission_for(None) == 1
    assert run.counts_until(90) == "2027-01-30"


def test_only_a_good_fit_counts():
    good = [GaugePoint(n, 40_000 - 0.002 * n * n) for n in (0, 1000, 2000, 3000)]
    assert usable(grip_fit(GripFitInput("od", tuple(good), 0.002)))
    assert not usable(grip_fit(GripFitInput("od", tuple(good), 0.004)))
    poor = (*good[:3], GaugePoint(3000, 39_000))
    assert not usable(grip_fit(GripFitInput("od", poor)))


def test_the_trend_by_hand():
    # Falls 0.01 a day: from 0.95 on the 1st it reaches 0.85 on the 11th.
    runs = [("2026-11-01", 0.95), ("2026-11-03", 0.93), ("2026-11-05", 0.91)]
    trend = trend_of(runs, 0.85)
    assert trend.per_month == pytest.approx(-0.3)
    assert trend.below == "2026-11-11"
    assert trend_of(runs[:2], 0.85) is None
    assert trend_of([("2026-11-01", c) for c in (0.9, 0.8, 0.7)], 0.85) is None
    assert trend_of([(d, 0.9) for d, _ in runs], 0.85).below is None
    slow = [("2026-01-01", 0.95), ("2026-06-01", 0.949), ("2026-11-01", 0.948)]
    assert trend_of(slow, 0.85).below is None  # farther ahead than a line can tell
