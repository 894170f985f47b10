"""The answers by a second method: by hand from what is known, or by asking the plan again."""

import math
import re

import pytest

from calc.jaws.backing import BoringPlug, BoringRing, JawBackingInput, jaw_backing
from calc.practice.exercise import Choice
from calc.practice.fault_kinds import BY_NAME, FAULTS, planted, stopped_by
from calc.practice.kinds import KINDS
from calc.practice.order_kinds import ORDERS

SEEDS = range(120)


def known(exercise):
    return {k.label: k.value.text() for k in exercise.known}


def figure(text):
    return float(re.search(r"-?[\d.]+", text.replace("\u202f", "").replace("−", "-"))[0])


def of(name, level):
    for seed in SEEDS:
        one = KINDS[name].exercise(seed, level)
        yield one, known(one)


def test_grip_left_by_the_masses():
    """Three jaws at m and r: F₀ − 3·m·r·ω² outside; printed in kN."""
    for one, told in of("grip-left", 2):
        mass = figure(told["Mass of one jaw with all that flies with it"])
        radius = figure(told["Its centre from the axis"]) / 1000
        omega = figure(told["Spindle speed"]) * math.tau / 60
        static = 1000 * figure(told["Grip standing still, all jaws"])
        assert one.answer.value == pytest.approx(max(0, static - 3 * mass * radius * omega**2), abs=1)


def test_grip_left_off_the_chart_is_on_the_line_that_is_drawn():
    for one, told in of("grip-left", 1):
        (line,) = one.picture.lines
        rpm = figure(told["Spindle speed"])
        near = min(line.points, key=lambda p: abs(p[0] - rpm))
        assert near[1] == pytest.approx(one.answer.value, abs=one.answer.right_within)
        assert one.picture.mark is None  # the answer is not marked


def test_what_height_costs():
    """(1 + 3·0.08·h₀/ℓ)/(1 + 3·0.08·h/ℓ) of the chart, and the rated moment at that height."""
    for level in (1, 2):
        for one, told in of("height", level):
            h0, h = figure(told["Its reference height"]), figure(told["You grip at"])
            guide = figure(told["Length of the guide"])
            factor = (1 + 0.24 * h0 / guide) / (1 + 0.24 * h / guide)
            charted = 1000 * figure(told["By the chart at this pressure"])
            if level == 1:
                assert one.answer.value == pytest.approx(factor * charted, rel=2e-3)
            else:
                allowed = 1000 * figure(told["The chuck's rated grip"]) * h0 / h
                assert one.answer.right.key == ("less" if factor * charted > allowed else "fine")


def test_a_paper_touch_off():
    for level in (1, 2, 3):
        for one, told in of("paper", level):
            x, slip = figure(told["X at touch-off, paper between"]), figure(told["The paper"])
            outside = told["Jaws grip"] == "outside"
            size = x + 2 * slip if outside else x - 2 * slip
            if level < 3:
                assert one.answer.value == pytest.approx(size, abs=1e-6)
            else:
                wanted = figure(told["To be"].removeprefix("Ø"))
                assert one.answer.value == pytest.approx(abs(wanted - size) / 2, abs=1e-3)


def test_the_largest_feed_is_the_least_of_the_schools():
    for level in (1, 2, 3):
        for one, told in of("feed", level):
            r = figure(told["Corner radius"])
            if one.answer.label == "Least depth":
                assert one.answer.value == r
                continue
            most = [2 * r / 3]
            if level > 1:
                most.append(math.sqrt(18 * math.sqrt(3) * r * figure(told["The print's finish"].split("Ra")[1]) / 1000))
            if level > 2:
                most.append(float(re.findall(r"[\d.]+", told["The breaker"])[1]))
            assert one.answer.value == pytest.approx(min(most), rel=1e-6)


def test_the_refractometer_and_what_is_added():
    for level in (1, 3):
        for one, told in of("refractometer", level):
            dark = next(s for s in one.picture.shapes if s.name == "dark")
            reading = min(y for _, y in dark.points) / 4
            strength = reading * figure(told["The product's factor"])
            if "In the tank" not in told:
                assert one.answer.value == pytest.approx(strength)
                continue
            c1, c2 = strength / 100, figure(told["Wanted"]) / 100
            assert one.answer.value == pytest.approx(figure(told["In the tank"]) * (c2 - c1) / (1 - c2), rel=1e-6)


def test_the_spindle_tops_out_where_pi_d_n_is_the_speed():
    for one, told in of("part-off", 2):
        speed, rpm = told["Surface speed, spindle at most"].split(",")
        assert one.answer.value == pytest.approx(1000 * figure(speed) / (math.pi * figure(rpm)), rel=1e-3)


def test_a_first_offs_offset():
    alphas = {"steel": 11.5, "stainless": 16.5, "aluminium": 23.5, "duplex": 13.0}
    for level in (1, 2, 3):
        for one, told in of("first-off", level):
            measured = figure(told["Measured"])
            if level > 1:
                metal, temp = told["Piece is"].split(",")
                measured /= 1 + alphas[metal] * 1e-6 * (figure(temp) - 20)
            sign = -1 if "front face" in told["It is"] else 1
            off = sign * (figure(told["Aim"]) - measured)
            assert one.answer.value == pytest.approx(off, abs=1e-6)
            wrong_way = "below" if off > 0 else "above"
            assert one.answer.danger in (wrong_way, None)


def test_limits_to_work_to():
    for level in (1, 2):
        for one, told in of("limits", level):
            low, high = map(float, re.findall(r"[\d.]+", told["The print"]))
            back = (high - low) / 6 if level == 1 else figure(told["Measuring is unsure by"])
            upper = one.answer.label.startswith("Upper")
            assert one.answer.value == pytest.approx(high - back if upper else low + back, abs=1e-6)


def test_the_drill_leaves_half_a_millimetre_a_side_and_no_larger_one_does():
    for one, told in of("drill-first", 1):
        bore = figure(told["Finished by a bar to"].removeprefix("Ø"))
        fits = [float(o.key) for o in one.answer.options if float(o.key) <= bore - 1]
        assert float(one.answer.right.key) == max(fits)
        for o in one.answer.options:
            assert (o.verdict == "dangerous") == (float(o.key) >= bore)


def test_the_bar_leaves_a_quarter_of_the_bore_for_the_chips():
    for one, told in of("bar", 1):
        bore = figure(told["Bore"].removeprefix("Ø"))
        fits = [float(o.key) for o in one.answer.options if float(o.key) <= 0.75 * bore]
        assert float(one.answer.right.key) == max(fits)


def test_a_ring_that_is_dangerous_is_in_the_tools_way_and_the_right_one_is_the_calculators():
    for level in (1, 2):
        for one, told in of("ring", level):
            outside = told["Gripping"] == "outside"
            d = figure((told.get("Bore") or told.get("Turned to")).removeprefix("Ø"))
            rings, plug = [], None
            for o in one.answer.options:
                sizes = [float(x) for x in re.findall(r"Ø([\d.]+)", o.words.text().replace("\xa0", " "))]
                if o.key.startswith("Ring"):
                    bar, rpm = (figure(t) for t in told[o.key].removeprefix("up to ").split("and"))
                    rings.append(BoringRing(o.key, *sizes, bar, rpm))
                    clear = sizes[0] >= d + 6 if outside else sizes[1] <= d - 6
                    assert (o.verdict == "dangerous") == (not clear)
                elif o.key == "plug" and sizes:
                    plug = BoringPlug(sizes[0])
                    assert (o.verdict == "dangerous") == (sizes[0] > d - 6)  # the tool runs into it
            side = "od" if outside else "id"
            found = jaw_backing(JawBackingInput(side, d, figure(told["Production pressure"]), tuple(rings), plug))
            right = found.ring if found.choice == "ring" else "plug" if found.choice == "plug" else "other"
            assert one.answer.right.key == right


def test_gauges_by_the_turns_of_not_go():
    for level in (1, 2):
        for one, told in of("gauges", level):
            turns = 0.0 if told["NOT GO"] == "does not enter" else figure(told["NOT GO"])
            most = 2 if told["Thread"].startswith("metric") else 3
            wanted = "scrap" if turns > most else "good" if told["GO"].startswith("goes all") else "cut again"
            assert one.answer.right.key == wanted
            if wanted != "good":
                good = next(o for o in one.answer.options if o.key == "good")
                assert good.verdict == "dangerous"


def test_jaws_are_cut_pressed_as_they_hold():
    for one, told in of("jaws-close", 1):
        outside = told["The part is gripped"].startswith("outside")
        assert one.answer.right.key == ("in" if outside else "out")


def test_blue_means_a_gap_where_it_crept_in():
    for one, _ in of("read-blue", 1):
        jaw = next(s for s in one.picture.shapes if s.name == "jaw").points
        floor, mouth = jaw[0][1], jaw[1][1]
        assert one.answer.right.key == ("tip" if mouth > floor else "base" if floor > mouth else "even")


def test_a_spring_pass_comes_last_and_only_one_order_is_clean():
    for orders in ORDERS:
        assert sum(order[-1].name == "spring pass" for order in orders) >= 1
    for level in (1, 2):
        for one, _ in of("burr", level):
            assert one.answer.right.words.text().endswith("spring pass")


def test_the_end_made_first_leaves_the_better_grip():
    for level in (1, 2):
        for one, _ in of("which-end", level):
            assert isinstance(one.answer, Choice)
            assert len(one.answer.options) == 2


def test_the_sound_plan_is_sound():
    assert stopped_by(planted("", 0.0)) == {}
    assert {s.state for s in planted("", 0.0).stops} == {"settled"}


@pytest.mark.parametrize("fault", FAULTS, ids=lambda f: f.name)
def test_a_planted_fault_is_refused_for_what_it_is(fault):
    for hard in fault.hard:
        refused = stopped_by(planted(fault.name, hard))
        if not fault.stop:
            assert refused == {}
            slow, sound = planted(fault.name, hard).stop("route"), planted("", 0.0).stop("route")
            cycle = [next(a for a in s.answers if a.name == "cycle").figure.value for s in (slow, sound)]
            assert cycle[0] > cycle[1] * 1.05  # it costs minutes
            continue
        assert fault.stop in refused
        assert not fault.codes or set(fault.codes) & set(refused[fault.stop])


def test_the_rule_of_a_fault_is_what_the_plan_says_of_it():
    rules = {one.answer.right.key: one.rule.text() for one, _ in of("fault", 2)}
    assert set(rules) == set(BY_NAME)
    assert "plain" in rules["deep"]
    assert len(set(rules.values())) == len(rules)


def test_no_other_answer_is_said_by_the_faulty_plan_too():
    for level in (1, 2):
        for one, _ in of("fault", level):
            right = one.answer.right.key
            for hard in BY_NAME[right].hard:
                codes = {c for said in stopped_by(planted(right, hard)).values() for c in said}
                for option in one.answer.options:
                    if option.key != right:
                        assert not codes & set(BY_NAME[option.key].codes)


def test_the_picture_is_the_same_whatever_is_wrong():
    assert len({repr(one.picture) for one, _ in of("fault", 2)}) == 1


def test_a_rough_bore_leaves_the_finish_its_stock_a_side():
    for one, told in of("drill-first", 2):
        bore = figure(told["Finished to"].removeprefix("Ø"))
        assert one.answer.value == pytest.approx(bore - 2 * figure(told["Left for the finish, a side"]))


def test_the_blade_is_the_narrowest_that_reaches_the_centre():
    for one, told in of("part-off", 3):
        half = figure(told["Parting off solid bar"].removeprefix("Ø")) / 2 + 2  # two millimetres to spare
        sizes = {o.key: [float(x) for x in re.findall(r"[\d.]+", o.words.text())] for o in one.answer.options}
        reaching = [key for key, (_, reach) in sizes.items() if reach >= half]
        assert one.answer.right.key == min(reaching, key=lambda key: sizes[key][0])
        for o in one.answer.options:
            assert (o.verdict == "dangerous") == (sizes[o.key][1] < half)


def test_a_larger_bore_holds_at_mid_jaw_and_inside_it_is_the_other_way_about():
    for level in (1, 2):
        for one, told in of("contact", level):
            outside = "Jaws bored to" in told
            jaw = figure(told["Jaws bored to" if outside else "Jaws turned to"].removeprefix("Ø"))
            part = figure(told["The piece" if outside else "The piece's bore"].removeprefix("Ø"))
            wanted = "full" if jaw == part else "centre" if (jaw > part) == outside else "edges"
            assert one.answer.right.key == wanted


def test_an_inserts_other_name_has_its_size_in_eighths_and_its_corner_in_sixty_fourths():
    """IC 12.7 mm is 4/8 in, 9.525 is 3; a corner of 0.4 is 1/64, 0.8 is 2, 1.2 is 3."""
    for one, told in of("insert-name", 2):
        code = told["On the box"]
        name = one.answer.right.words.text()
        assert name[:2] == code[:2]
        corner = {"04": "1", "08": "2", "12": "3"}[code[-2:]]
        assert name.endswith(corner)
    for one, told in of("insert-name", 1):
        assert one.answer.value == int(told["On the box"][-2:]) / 10


def test_a_hand_in_the_chips_is_always_dangerous():
    for level in (1, 2):
        for one, _ in of("chips", level):
            assert [o.key for o in one.answer.options if o.verdict == "dangerous"] == ["hand"]
