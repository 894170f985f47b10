"""What the cuts ask of the grip: calculator `grip-demand`."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Annotated, Any, Generic, Literal

from calc import terms
from calc.describing import calculator
from calc.errors import FieldError
from calc.fields import Checked, Flag, Group, Quantity, Text
from calc.quantities import Sentence
from calc.results import Explained, Found
from calc.working import N, Steps, Working, derived

DEMAND = derived("What the cut asks")
FLATS = derived("Bars with flats")
UNBALANCE = derived("Loads beside the cuts")
GRAVITY = 9.80665  # m/s², standard gravity
# What pushes the part across, in terms of the whole grip: 1/cos(π/z), the polygon of the jaws' normals.
SIDE_TERM = {3: "2", 4: "sqrt(2)", 6: "2/sqrt(3)"}
ARM = "l/4 + μ*d_g/4"

FORCE_MOST = 500_000.0
Force = Quantity("Force", "N", "", low=0, high=FORCE_MOST)
Mode = Literal["slip", "tilt", "side"]


MODE_WORDS = {"slip": "slipping", "tilt": "tilting", "side": "the side push"}


@dataclass(frozen=True)
class CutLoad(Checked):
    """Forces of one cut on the part, sizes only."""

    name: Annotated[str, Text("Cut", "What the setter calls it")]
    tangential_n: Annotated[float, Quantity("Tangential force", "N", "Along the cutting speed", low=0, high=FORCE_MOST)]
    axial_n: Annotated[float, Quantity("Axial force", "N", "Along the spindle", low=0, high=FORCE_MOST)]
    radial_n: Annotated[float, Quantity("Radial force", "N", "Toward the axis", low=0, high=FORCE_MOST)]
    cut_diameter_mm: Annotated[float, Quantity("Cut diameter", "mm", "", above=0, high=5000)]
    overhang_mm: Annotated[float, terms.OVERHANG.called(help="Middle of the grip to the cut", low=0, above=None)]
    unseated_axial_n: Annotated[
        float, Quantity("Axial force no seat carries", "N", "Either direction", low=0, high=FORCE_MOST)
    ] = 0.0
    torque_only: Annotated[bool, Flag("Torque only", "Drilling and tapping on centre")] = False


@dataclass(frozen=True)
class GripDemandInput(Checked):
    """Input of `grip-demand`."""

    cuts: Annotated[tuple[CutLoad, ...], Group("Cuts", "Every load of the operation", least=1, most=200)]
    grip_diameter_mm: Annotated[float, terms.GRIP_DIAMETER.called(help="")]
    grip_length_mm: Annotated[float, terms.GRIP_LENGTH.called(help="Depth that really touches")]
    friction: Annotated[float, Quantity("Friction", "", "Between jaw and part", above=0, high=1)]
    safety: Annotated[float, terms.SAFETY] = 2.0
    tailstock: Annotated[bool, Flag("Live centre", "Takes tilt and side")] = False
    jaws: Annotated[int, terms.JAWS.called(help="2, 3, 4 or 6", high=6)] = 3
    part_mass_kg: Annotated[float, Quantity("Part's mass", "kg", "As it is held", low=0, high=1_000_000)] = 0.0
    offset_mm: Annotated[float, terms.OUT_OF_BALANCE] = 0.0
    centre_overhang_mm: Annotated[
        float, Quantity("Centre of mass", "mm", "From the middle of the grip, along the spindle", low=0, high=5000)
    ] = 0.0
    rpm: Annotated[float, terms.SPINDLE_SPEED] = 0.0
    flats: Annotated[
        int, Quantity("Flats", "", "Of a form collet's hole: 4 or 6; 0 where it is round", low=0, high=6, whole=True)
    ] = 0

    def contradictions(self) -> Iterator[FieldError]:
        if self.jaws not in (2, *SIDE_TERM):
            yield FieldError(
                "jaws", Sentence("What a cut asks is known for 2, 3, 4 and 6 jaws, not for {z}.", z=str(self.jaws))
            )
        if self.flats not in (0, 4, 6):
            yield FieldError("flats", Sentence("A form collet has 4 or 6 flats; give 0 for a round one."))


@dataclass(frozen=True, slots=True)
class CutDemand:
    """What one cut asks, sums over all jaws; `required_n` has the safety in it."""

    name: Annotated[str, Found("Cut")]
    slip_n: Annotated[float, Found("Against slipping", "N", "up")]
    tilt_n: Annotated[float, Found("Against tilting", "N", "up")]
    side_n: Annotated[float, Found("Against the side push", "N", "up")]
    required_n: Annotated[float, Found("Required", "N", "up")]

    @property
    def mode(self) -> Mode:
        """The largest of the three terms."""
        terms: dict[Mode, float] = {"slip": self.slip_n, "tilt": self.tilt_n, "side": self.side_n}
        return max(terms, key=lambda name: terms[name])


@dataclass(frozen=True, slots=True, kw_only=True)
class GripDemandResult(Explained):
    """The grip that the worst cut needs, safety included."""

    required_grip_n: Annotated[float, Found("Required grip, all jaws", "N", "up")]
    governing_cut: Annotated[str, Found("Governing cut")]
    governing_mode: Annotated[Mode, Found("Governing mode", options=MODE_WORDS)]
    cuts: Annotated[tuple[CutDemand, ...], Found("Each cut")]


@dataclass(frozen=True, eq=False)
class Pushes(Generic[N]):
    """Forces of one cut on the part [N], where and how far out it cuts [mm]."""

    tangential: N
    axial: N
    radial: N
    unseated: N
    diameter: float
    overhang: float
    torque_only: bool = False


@dataclass(frozen=True, eq=False)
class Terms(Generic[N]):
    """What a cut asks against slipping, tilting and being pushed across, and in all with the safety [N]."""

    slip: N
    tilt: N
    side: N
    required: N


def beside(w: Steps[N], given: GripDemandInput, rpm: N) -> N:
    """The part's weight and imbalance [N] at its centre of mass, at a speed [rpm]: they turn against the cut, so
    they add to its worst.

    >>> cut = CutLoad("turn", 2510, 1150, 500, 118, 35)
    >>> round(beside(Working(), GripDemandInput((cut,), 84, 18.5, 0.12, part_mass_kg=2, offset_mm=0.5), 3000.0), 1)
    118.3

    Reference: derived in docs/method.md, “Loads beside the cuts”.
    """
    text = "m*(e/1000*(2*pi*n/60)**2 + g)"
    values = {"m": given.part_mass_kg, "e": given.offset_mm, "n": rpm, "g": GRAVITY}
    return w.step("F_m", "The part's weight and its imbalance", text, "N", UNBALANCE, **values)


def _slip(w: Steps[N], name: str, push: Pushes[N], given: GripDemandInput) -> N:
    label, pushed = f"{name}: grip against slipping", {"F_t": push.tangential, "d_c": push.diameter}
    more: dict[str, Any] = {**pushed, "F_ax": push.unseated, "μ": given.friction}
    if given.flats:
        # Flats carry the torque themselves: it pushes their pressure toward the edges, half of each counted.
        text = "hypot(2*F_t*d_c / (a*tan(pi/n)), F_ax/μ)"
        return w.step("F_slip", label, text, "N", FLATS, a=given.grip_diameter_mm, n=given.flats, **more)
    text = "hypot(F_t*d_c/d_g, F_ax) / μ"
    return w.step("F_slip", label, text, "N", DEMAND, d_g=given.grip_diameter_mm, **more)


def terms_of(w: Steps[N], name: str, push: Pushes[N], given: GripDemandInput, weighs: N | None) -> Terms[N]:
    """What one cut asks of the grip; `weighs` [N] is what the part itself pulls, None where that is nothing.

    >>> cut = CutLoad("turn", 2510, 1150, 500, 118, 35)
    >>> asked = GripDemandInput((cut,), 84, 18.5, 0.12)
    >>> push = Pushes(2510.0, 1150.0, 500.0, 0.0, 118, 35)
    >>> round(terms_of(Working(), "turn", push, asked, None).required / 2)
    37081

    Reference: derived in docs/method.md, “What the cut asks”.
    """
    slip = _slip(w, name, push, given)
    tilt: Any = 0.0
    side: Any = 0.0
    if not given.tailstock:
        across = 0.0 if push.torque_only else push.tangential
        more = {} if weighs is None else {"a_m": given.centre_overhang_mm, "F_m": weighs}
        tips = "(a*hypot(F_t, F_r) + F_a*d_c/2" + (")" if weighs is None else " + a_m*F_m)")
        # Two jaws resist a tilt about the line between them by friction alone.
        arm = {"l": given.grip_length_mm, "μ": given.friction}
        if given.jaws != 2:
            arm["d_g"] = given.grip_diameter_mm
        tilt = w.step(
            "F_tilt",
            f"{name}: grip against tilting",
            f"{tips} / ({'μ*l/4' if given.jaws == 2 else ARM})",
            "N",
            DEMAND,
            a=push.overhang,
            F_t=across,
            F_r=push.radial,
            F_a=push.axial,
            d_c=push.diameter,
            **more,
            **arm,
        )
        pushes = "hypot(F_t, F_r)" if weighs is None else "(hypot(F_t, F_r) + F_m)"
        text = f"{pushes} / μ" if given.jaws == 2 else f"{SIDE_TERM[given.jaws]}*{pushes}"
        only = ({} if weighs is None else {"F_m": weighs}) | ({"μ": given.friction} if given.jaws == 2 else {})
        label = f"{name}: grip against being pushed across"
        side = w.step("F_side", label, text, "N", DEMAND, F_t=across, F_r=push.radial, **only)
    required = w.step(
        "F_req",
        f"{name}: grip needed, safety included",
        "S * sqrt(F_slip**2 + F_tilt**2 + F_side**2)",
        "N",
        DEMAND,
        S=given.safety,
        F_slip=slip,
        F_tilt=tilt,
        F_side=side,
    )
    return Terms(slip, tilt, side, required)


def _demand(cut: CutLoad, given: GripDemandInput, weighs: float | None, w: Working) -> CutDemand:
    push = Pushes(
        cut.tangential_n,
        cut.axial_n,
        cut.radial_n,
        cut.unseated_axial_n,
        cut.cut_diameter_mm,
        cut.overhang_mm,
        cut.torque_only,
    )
    found = terms_of(w, cut.name, push, given, weighs)
    return CutDemand(cut.name, found.slip, found.tilt, found.side, found.required)


def required_at(found: GripDemandResult, given: GripDemandInput) -> Callable[[float], float]:
    """The grip needed [N] as a function of the spindle speed [rpm]: the imbalance grows with its square.

    `found` are the demands of `given`. Slip does not depend on speed; tilt and side grow with what the part pulls,
    by as much as a pull of 1 N alone would make them.

    >>> given = GripDemandInput((CutLoad("turn", 1000, 300, 500, 60, 40),), 50, 30, 0.2)
    >>> found = grip_demand(given)
    >>> required_at(found, given)(3000.0) == found.required_grip_n  # nothing is out of balance
    True

    Reference: F = m·e·ω²; derived in docs/method.md, “What the cut asks”.
    """
    each = each_required_at(found, given)
    return lambda rpm: max(each(i, rpm) for i in range(len(found.cuts)))


def each_required_at(found: GripDemandResult, given: GripDemandInput) -> Callable[[int, float], float]:
    """The same of one load by its place: each cut is judged at a speed of its own.

    >>> given = GripDemandInput((CutLoad("turn", 1000, 300, 500, 60, 40),), 50, 30, 0.2)
    >>> found = grip_demand(given)
    >>> each_required_at(found, given)(0, 3000.0) == found.cuts[0].required_n
    True

    Reference: F = m·e·ω²; derived in docs/method.md, “What the cut asks”.
    """
    if given.part_mass_kg <= 0 or given.offset_mm == 0 or given.tailstock:  # then nothing grows with speed
        return lambda place, _: found.cuts[place].required_n
    alone = terms_of(Working(), "", Pushes(0.0, 0.0, 0.0, 0.0, 1.0, 0.0), given, 1.0)
    at = beside(Working(), given, given.rpm)

    def needed(place: int, rpm: float) -> float:
        more, c = beside(Working(), given, rpm) - at, found.cuts[place]
        return given.safety * math.hypot(c.slip_n, c.tilt_n + alone.tilt * more, c.side_n + alone.side * more)

    return needed


@calculator(GripDemandInput)
def grip_demand(given: GripDemandInput) -> GripDemandResult:
    """The grip that the cuts of an operation need.

    Parameters
        {parameters}
    Returns
        required_grip_n [N] sum over all jaws, safety included; governing cut and mode; every cut's terms
    Raises
        CalcError for values outside these ranges
    Validity
        Jaws at equal angles that share one pull. One supply of friction and pressure serves all three
        terms, so they add as squares; a plain maximum would be unsafe. `grip-exact` is the check.
    Example
        >>> cut = CutLoad("turn", 2510, 1150, 500, 118, 35)
        >>> round(grip_demand(GripDemandInput((cut,), 84, 18.5, 0.12)).required_grip_n / 2)
        37081

    Reference
        derived in docs/method.md, “What the cut asks”
    """
    w = Working()
    weighs = beside(w, given, given.rpm) if given.part_mass_kg > 0 else None
    demands = tuple(_demand(cut, given, weighs, w) for cut in given.cuts)
    worst = max(demands, key=lambda d: d.required_n)
    return GripDemandResult(
        required_grip_n=worst.required_n,
        governing_cut=worst.name,
        governing_mode=worst.mode,
        cuts=demands,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
