"""What the cuts ask of the grip: calculator `grip-demand`."""

from __future__ import annotations

from dataclasses import dataclass
from typing import Annotated, Literal

from calc.fields import Checked, Flag, Group, Quantity, Text
from calc.results import Explained
from calc.working import Working, derived

DEMAND = derived("What the cut asks")

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


def _demand(cut: CutLoad, given: GripDemandInput, w: Working) -> CutDemand:
    slip = w.step(
        "F_slip", f"{cut.name}: grip against slipping", "hypot(F_t*d_c/d_g, F_ax) / μ", "N", DEMAND,
        F_t=cut.tangential_n, d_c=cut.cut_diameter_mm, d_g=given.grip_diameter_mm, F_ax=cut.unseated_axial_n,
        μ=given.friction,
    )  # fmt: skip
    tilt = side = 0.0
    if not given.tailstock:
        across = 0.0 if cut.torque_only else cut.tangential_n
        tilt = w.step(
            "F_tilt", f"{cut.name}: grip against tilting", "(a*hypot(F_t, F_r) + F_a*d_c/2) / (l/4 + μ*d_g/4)", "N",
            DEMAND, a=cut.overhang_mm, F_t=across, F_r=cut.radial_n, F_a=cut.axial_n, d_c=cut.cut_diameter_mm,
            l=given.grip_length_mm, μ=given.friction, d_g=given.grip_diameter_mm,
        )  # fmt: skip
        side = w.step(
            "F_side", f"{cut.name}: grip against being pushed across", "2*hypot(F_t, F_r)", "N", DEMAND,
            F_t=across, F_r=cut.radial_n,
        )  # fmt: skip
    required = w.step(
        "F_req", f"{cut.name}: grip needed, safety included", "S * sqrt(F_slip**2 + F_tilt**2 + F_side**2)", "N",
        DEMAND, S=given.safety, F_slip=slip, F_tilt=tilt, F_side=side,
    )  # fmt: skip
    return CutDemand(cut.name, slip, tilt, side, required)


def grip_demand(given: GripDemandInput) -> GripDemandResult:
    """The grip that the cuts of an operation need.

    Parameters
        given.cuts forces [N] at cut diameter [mm] and overhang [mm]
        given.grip_diameter_mm, given.grip_length_mm [mm] above 0; given.friction [-] 0…1
        given.safety [-] 1.5…10; given.tailstock: a live centre takes tilt and side
    Returns
        required_grip_n [N] sum over all jaws, safety included; governing cut and mode; every cut's terms
    Raises
        CalcError for values outside these ranges
    Validity
        Three jaws. One supply of friction and pressure serves all three terms, so they add as
        squares; a plain maximum would be unsafe.
    Example
        >>> cut = CutLoad("turn", 2510, 1150, 500, 118, 35)
        >>> round(grip_demand(GripDemandInput((cut,), 84, 18.5, 0.12)).required_grip_n / 2)
        37081

    Reference
        derived in docs/method.md, “What the cut asks”
    """
    w = Working()
    demands = tuple(_demand(cut, given, w) for cut in given.cuts)
    worst = max(demands, key=lambda d: d.required_n)
    return GripDemandResult(
        required_grip_n=worst.required_n, governing_cut=worst.name, governing_mode=worst.mode, cuts=demands,
        working=tuple(w.steps), notes=tuple(w.notes),
    )  # fmt: skip
