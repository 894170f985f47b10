"""What a hold is found to be: what the other stops need of it."""

from __future__ import annotations

from dataclasses import dataclass
from functools import cached_property
from math import radians, sin

from calc.errors import CalcError
from calc.jaws.bore import JawBoreResult
from calc.jaws.contact import JawContactInput, JawContactResult, jaw_contact
from calc.jaws.position import JawPositionResult
from calc.profile.body import End
from calc.profile.grips import Grip
from calc.shelf.chuck import Chuck
from calc.shelf.collet import Collet
from calc.shelf.jaw_blank import JawBlank
from calc.terms import Side
from calc.working import Note, Step

OPENED_MM = 0.5  # on radius, typical
TIGHT_MM = 0.0254  # a tolerance below 0.001 in is printed with one place more


@dataclass(frozen=True, kw_only=True)
class HoldFigures:
    """What the other stops need of a hold, in jaws or in a collet. Lengths in mm."""

    chuck: Chuck
    grip: Grip
    held_end: End
    held_mm: float
    touches_mm: float  # of that, what really touches
    wrap_deg: float  # of one jaw or segment
    work_length_mm: float
    grip_height_mm: float
    length_mm: float  # from the finished face that is worked to the held end, with the stock on it
    face_stock_mm: float  # on the face that is worked
    beyond_mm: float  # from the pocket's mouth out to the finished face
    stick_out_mm: float | None  # of a bar, out of what holds it
    centre_mm: float  # diameter of the hole that a live centre stands in, at the face; 0 without a centre
    surfaces: str
    friction: float
    height_steps: tuple[Step, ...]
    friction_steps: tuple[Step, ...]
    notes: tuple[Note, ...]

    @property
    def side(self) -> Side:
        """Outside or inside grip."""
        return self.grip.side

    @property
    def middle_mm(self) -> float:
        """From the part's held end to the middle of the grip; below 0 where a bar is gripped behind the part."""
        if self.stick_out_mm is None:
            return self.grip.offset_mm + self.held_mm / 2
        return self.length_mm + self.face_stock_mm - self.stick_out_mm - self.held_mm / 2

    @property
    def overhang_mm(self) -> float:
        """From the middle of the grip to the worked face with its stock."""
        return self.work_length_mm - self.middle_mm

    @property
    def out_mm(self) -> float:
        """How far the work stands out of what holds it, its face stock included."""
        return self.beyond_mm + self.face_stock_mm

    @property
    def places(self) -> tuple[int, int]:
        """Decimal places its diameter is printed with."""
        return (3, 4) if 0 < self.grip.largest_mm - self.grip.smallest_mm < TIGHT_MM else (2, 3)

    @property
    def deep_mm(self) -> float:
        """How deep the part goes in."""
        return self.grip.offset_mm + self.held_mm

    @property
    def nose_mm(self) -> float:
        """From the spindle's face to the outer end of what holds the part."""
        return self.chuck.body_length_mm

    @property
    def presses_all_round(self) -> bool:
        """Speed neither takes grip nor adds any."""
        return False

    @property
    def flats(self) -> int:
        """On how many flats a form collet carries the torque; 0 where friction does."""
        return 0


@dataclass(frozen=True, kw_only=True)
class ColletHold(HoldFigures):
    """A bar or a part in a collet: nothing is bored, and it acts at the nose."""

    collet: Collet

    @property
    def presses_all_round(self) -> bool:
        """Its segments weigh nothing beside what closes them (typical), and stand on no guides."""
        return True

    @property
    def flats(self) -> int:
        """Those of its hole."""
        return self.collet.flats


@dataclass(frozen=True, kw_only=True)
class JawHold(HoldFigures):
    """A part in top jaws: bored ones, or hard ones that come with their step."""

    blank: JawBlank
    jaw_height_mm: float
    usable_height_mm: float
    mount: JawPositionResult | None
    face_radius_mm: float
    pocket: JawBoreResult
    mouth_mm: float
    other: JawBoreResult | None
    recess_mm: tuple[float, float]  # radius and depth, in the pocket's floor behind the part; 0 where there is none

    @property
    def cut(self) -> str:
        """What is done to the jaws: "bored", or "turned" where they grip inside."""
        return "bored" if self.side == "od" else "turned"

    @property
    def opened_mm(self) -> float:
        """Radius to which the jaws are opened behind the grip, for a bar to pass; 0 where none does."""
        return 0.0 if self.stick_out_mm is None else self.grip.corners * self.grip.largest_mm / 2 + OPENED_MM

    @property
    def out_mm(self) -> float:
        """How far the work stands out of the jaws, its face stock included."""
        return self.beyond_mm + self.face_stock_mm - self.mouth_mm

    @property
    def deep_mm(self) -> float:
        """How deep the part goes in."""
        return self.pocket.bore_depth_mm

    @property
    def nose_mm(self) -> float:
        """From the spindle's face to the outer end of the jaws."""
        return self.chuck.body_length_mm + self.chuck.guide_to_jaw_base_mm + self.jaw_height_mm

    @property
    def removed_mm(self) -> float:
        """Metal this side's pocket takes at mid-jaw, per side."""
        return abs(self.pocket.bore_diameter_mm / 2 - self.face_radius_mm)

    @property
    def width_mm(self) -> float:
        """Width of a jaw across its middle line; a pie jaw's is its chord at the grip."""
        if self.blank.width_mm is not None:
            return self.blank.width_mm
        return self.pocket.bore_diameter_mm * sin(radians(self.wrap_deg / 2))

    def contact(self, diameter_mm: float) -> JawContactResult | None:
        """How a piece of this size sits in the jaws; None where it cannot, which the stroke or the tooth tells."""
        given = (self.side, self.pocket.bore_diameter_mm, diameter_mm, self.width_mm + 1e-9, self.wrap_deg)
        try:
            return jaw_contact(JawContactInput(*given))
        except CalcError:
            return None

    # Asked for by what is shown alone: the jaws that are only compared never need it.
    @cached_property
    def contacts(self) -> tuple[JawContactResult | None, ...]:
        """How the smallest, the nominal and the largest piece sit."""
        sizes = (self.grip.smallest_mm, self.grip.diameter_mm, self.grip.largest_mm)
        return tuple(self.contact(size) for size in sizes)
