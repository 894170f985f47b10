"""What the cuts ask of the grip: calculator `grip-demand`."""

from __future__ import annotations

import math
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from typing import Annotated, Literal

from calc.chuck.speed import Rpm
from calc.errors import FieldError
from calc.fields import Checked, Flag, Group, Quantity, Text
from calc.quantities import Sentence
from calc.results import Explained
from calc.working import Working, derived

DEMAND = derived("What the cut asks")
UNBALANCE = derived("Loads beside the cuts")
GRAVITY = 9.80665  # m/s², standard gravity
# What pushes the part across, in terms of the whole grip: 1/cos(π/z), the polygon of the jaws' normals.
SIDE_TERM = {3: "2", 4: "sqrt(2)", 6: "2/sqrt(3)"}
ARM = "l/4 + μ*d_g/4"

FORCE_MOST = 500_000.0
Force = Quantity("Force", "N", "", low=0, high=FORCE_MOST)
Mode = Literal["slip", "tilt", "side"]


@dataclass(frozen=True)
class CutLoad(Checked):
    """Forces of one cut on the part, sizes only."""

    name: Annotated[str, Text("Cut", "What the setter calls it")]
    tangential_n: Annotated[float, Quantity("Tangential force", "N", "Along the cutting speed", low=0, high=FORCE_MOST)]
    axial_n: Annotated[float, Quantity("Axial force", "N", "Along the spindle", low=0, high=FORCE_MOST)]
    radial_n: Annotated[float, Quantity("Radial force", "N", "Toward the axis", low=0, high=FORCE_MOST)]
    cut_diameter_mm: Annotated[float, Quantity("Cut diameter", "mm", "", above=0, high=5000)]
    overhang_mm: Annotated[float, Quantity("Overhang", "mm", "Middle of the grip to the cut", low=0, high=5000)]
    unseated_axial_n: Annotated[
        float, Quantity("Axial force no seat carries", "N", "Either direction", low=0, high=FORCE_MOST)
    ] = 0.0
    torque_only: Annotated[bool, Flag("Torque only", "Drilling and tapping on centre")] = False


@dataclass(frozen=True)
class GripDemandInput(Checked):
    """Input of `grip-demand`."""

    cuts: Annotated[tuple[CutLoad, ...], Group("Cuts", "Every load of the operation", least=1, most=200)]
    grip_diameter_mm: Annotated[float, Quantity("Grip diameter", "mm", "", above=0, high=5000)]
    grip_length_mm: Annotated[float, Quantity("Grip length", "mm", "Depth that really touches", above=0, high=1000)]
    friction: Annotated[float, Quantity("Friction", "", "Between jaw and part", above=0, high=1)]
    safety: Annotated[float, Quantity("Safety", "", "On the grip; 2 is usual, 1.5 the least", low=1.5, high=10)] = 2.0
    tailstock: Annotated[bool, Flag("Live centre", "Takes tilt and side")] = False
    jaws: Annotated[int, Quantity("Jaws", "", "2, 3, 4 or 6", low=2, high=6, whole=True)] = 3
    part_mass_kg: Annotated[float, Quantity("Part's mass", "kg", "As it is held", low=0, high=1_000_000)] = 0.0
    offset_mm: Annotated[
        float, Quantity("Out of balance", "mm", "The part's centre of mass off the spindle's axis", low=0, high=100)
    ] = 0.0
    centre_overhang_mm: Annotated[
        float, Quantity("Centre of mass", "mm", "From the middle of the grip, along the spindle", low=0, high=5000)
    ] = 0.0
    rpm: Annotated[Rpm, Quantity("Spindle speed", "rpm", "At which the part's imbalance pulls", low=0, high=20_000)] = (
        0.0
    )

    def contradictions(self) -> Iterator[FieldError]:
        if self.jaws not in (2, *SIDE_TERM):
            yield FieldError(
                "jaws", Sentence("What a cut asks is known for 2, 3, 4 and 6 jaws, not for {z}.", z=str(self.jaws))
            )


@dataclass(frozen=True, slots=True)
class CutDemand:
    """What one cut asks, sums over all jaws; `required_n` has the safety in it."""

    name: str
    slip_n: float
    tilt_n: float
    side_n: float
    required_n: float

    @property
    def mode(self) -> Mode:
        """The largest of the three terms."""
        terms: dict[Mode, float] = {"slip": self.slip_n, "tilt": self.tilt_n, "side": self.side_n}
        return max(terms, key=lambda name: terms[name])


@dataclass(frozen=True, slots=True, kw_only=True)
class GripDemandResult(Explained):
    """The grip that the worst cut needs, safety included."""

    required_grip_n: float
    governing_cut: str
    governing_mode: Mode
    cuts: tuple[CutDemand, ...]


def _beside(given: GripDemandInput, w: Working) -> float:
    """The part's weight and imbalance [N] at its centre of mass; they turn against the cut, so they add to its
    worst.
    """
    if given.part_mass_kg <= 0:
        return 0.0
    return w.step(
        "F_m",
        "The part's weight and its imbalance",
        "m*(e/1000*(2*pi*n/60)**2 + g)",
        "N",
        UNBALANCE,
        m=given.part_mass_kg,
        e=given.offset_mm,
        n=given.rpm,
        g=GRAVITY,
    )


def _demand(cut: CutLoad, given: GripDemandInput, beside: float, w: Working) -> CutDemand:
    slip = w.step(
        "F_slip",
        f"{cut.name}: grip against slipping",
        "hypot(F_t*d_c/d_g, F_ax) / μ",
        "N",
        DEMAND,
        F_t=cut.tangential_n,
        d_c=cut.cut_diameter_mm,
        d_g=given.grip_diameter_mm,
        F_ax=cut.unseated_axial_n,
        μ=given.friction,
    )
    tilt = side = 0.0
    if not given.tailstock:
        across = 0.0 if cut.torque_only else cut.tangential_n
        more: dict[str, float] = {"a_m": given.centre_overhang_mm, "F_m": beside} if beside else {}
        tips = "(a*hypot(F_t, F_r) + F_a*d_c/2" + (" + a_m*F_m)" if beside else ")")
        # Two jaws resist a tilt about the line between them by friction alone.
        arm: dict[str, float] = {"l": given.grip_length_mm, "μ": given.friction}
        if given.jaws != 2:
            arm["d_g"] = given.grip_diameter_mm
        tilt = w.step(
            "F_tilt",
            f"{cut.name}: grip against tilting",
            f"{tips} / ({'μ*l/4' if given.jaws == 2 else ARM})",
            "N",
            DEMAND,
            a=cut.overhang_mm,
            F_t=across,
            F_r=cut.radial_n,
            F_a=cut.axial_n,
            d_c=cut.cut_diameter_mm,
            **more,
            **arm,
        )
        push = "(hypot(F_t, F_r) + F_m)" if beside else "hypot(F_t, F_r)"
        only = {"F_m": beside} if beside else {}
        if given.jaws == 2:
            side = w.step(
                "F_side",
                f"{cut.name}: grip against being pushed across",
                f"{push} / μ",
                "N",
                DEMAND,
                F_t=across,
                F_r=cut.radial_n,
                **only,
                μ=given.friction,
            )
        else:
            side = w.step(
                "F_side",
                f"{cut.name}: grip against being pushed across",
                f"{SIDE_TERM[given.jaws]}*{push}",
                "N",
                DEMAND,
                F_t=across,
                F_r=cut.radial_n,
                **only,
            )
    required = w.step(
        "F_req",
        f"{cut.name}: grip needed, safety included",
        "S * sqrt(F_slip**2 + F_tilt**2 + F_side**2)",
        "N",
        DEMAND,
        S=given.safety,
        F_slip=slip,
        F_tilt=tilt,
        F_side=side,
    )
    return CutDemand(cut.name, slip, tilt, side, required)


def required_at(found: GripDemandResult, given: GripDemandInput) -> Callable[[float], float]:
    """The grip needed [N] as a function of the spindle speed [rpm]: the imbalance grows with its square.

    `found` are the demands of `given`, whose terms are taken apart here: slip does not depend on speed,
    tilt and side grow by the imbalance's share.
    """
    at = given.rpm * 2 * math.pi / 60
    unbalance = 0.0 if given.tailstock else given.part_mass_kg * given.offset_mm / 1000  # N per (rad/s)²
    length, mu = given.grip_length_mm, given.friction
    arm = mu * length / 4 if given.jaws == 2 else (length + mu * given.grip_diameter_mm) / 4
    side = 1 / mu if given.jaws == 2 else 1 / math.cos(math.pi / given.jaws)
    tips = given.centre_overhang_mm / arm

    def needed(rpm: float) -> float:
        more = unbalance * ((rpm * 2 * math.pi / 60) ** 2 - at**2)
        return given.safety * max(
            math.hypot(c.slip_n, c.tilt_n + tips * more, c.side_n + side * more) for c in found.cuts
        )

    return needed


def grip_demand(given: GripDemandInput) -> GripDemandResult:
    """The grip that the cuts of an operation need.

    Parameters
        given.cuts forces [N] at cut diameter [mm] and overhang [mm]
        given.grip_diameter_mm, given.grip_length_mm [mm] above 0; given.friction [-] 0…1
        given.safety [-] 1.5…10; given.tailstock: a live centre takes tilt and side; given.jaws 2, 3, 4 or 6
        given.part_mass_kg [kg], given.offset_mm [mm], given.centre_overhang_mm [mm]: the part's weight and,
        at given.rpm [rpm], its imbalance, which add to every cut
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
    beside = _beside(given, w)
    demands = tuple(_demand(cut, given, beside, w) for cut in given.cuts)
    worst = max(demands, key=lambda d: d.required_n)
    return GripDemandResult(
        required_grip_n=worst.required_n,
        governing_cut=worst.name,
        governing_mode=worst.mode,
        cuts=demands,
        working=tuple(w.steps),
        notes=tuple(w.notes),
    )
