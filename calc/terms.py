"""Terms of the trade that several inputs share, each declared once: label, unit, meaning, range.

An input that means the same says the term; one that calls it otherwise, or is narrower for a reason of its own,
says `TERM.called(...)` with what differs. A field that only one input has is declared where it is.
"""

from __future__ import annotations

from typing import Literal

from calc.fields import Choice, Quantity

# Holding
Side = Literal["od", "id"]
SIDE = Choice("Side gripped", {"od": "outside", "id": "inside"}, "Outside: jaws push inward. Inside: outward.")
JAWS = Quantity("Jaws", low=2, high=12, whole=True)
PRESSURE = Quantity("Gauge pressure", "bar", "At the cylinder", above=0, high=400)
CONDITION = Quantity("Condition", "", "Share of the charted grip that is really there", low=0.01, high=1.2)
TOTAL_GRIP = Quantity("Grip", "N", "Sum over all jaws", above=0, high=2_000_000)
# As far as any demand that can be computed: a pressure or a speed is then found to be out of reach, in words.
REQUIRED_GRIP = Quantity("Required grip", "N", "Sum over all jaws", low=0, high=1e15)
WALL_LIMIT = Quantity("Grip the wall stands", "N", "Sum over all jaws", low=0, high=2_000_000)
GRIP_DIAMETER = Quantity("Grip diameter", "mm", "Nominal, of what is gripped", above=0, high=4000)
GRIP_LENGTH = Quantity("Grip length", "mm", "Along the axis", above=0, high=1000)
OUT_OF_BALANCE = Quantity("Out of balance", "mm", "The part's centre of mass off the spindle's axis", low=0, high=100)
SAFETY = Quantity("Safety", "", "On the grip; 2 is usual, 1.5 the least", low=1.5, high=10)

# Speeds
SPINDLE_SPEED = Quantity("Spindle speed", "rpm", low=0, high=20_000)
SPEED_LIMIT = Quantity("Highest rpm", "rpm", "Clamp or machine", above=0, high=20_000)
OWN_LIMIT = SPEED_LIMIT.called("Own limit", "")

# Jaws
METAL_DENSITY = Quantity("Density", "kg/dm3", "Steel 7.85, aluminium 2.7", above=0, high=25)
JAW_WIDTH = Quantity("Width", "mm", "Across, of a regular jaw", above=0, high=1000)
JAW_LENGTH = Quantity("Length", "mm", "Radially", above=0, high=1000)
BLANK_HEIGHT = Quantity("Height", "mm", "Along the spindle", above=0, high=500)
FACE_RADIUS = Quantity("Face radius", "mm", "Inner end from the axis", low=0, high=2000)
PIE_ANGLE = Quantity("Pie angle", "deg", "Of one pie jaw", above=0, high=180)
JAW_HEIGHT = Quantity("Jaw height", "mm", above=0, high=500)
POCKET_DEPTH = Quantity("Depth of grip", "mm", "Empty: a third of the part, rounded up", above=0, high=500)
FLOOR = Quantity("Floor to leave", "mm", "Above the bolt heads", low=0, high=200)
EDGE_BREAK = Quantity("Part's edge", "mm", "Chamfer or edge break at the seat", low=0, high=50)
TOOL_CLEARANCE = Quantity("Tool clearance", "mm", "Tool to jaw face, per side", low=0, high=50)
CLEANUP = Quantity("Clean-up", "mm", "Least metal to take at the corners", low=0, high=50)
TOOTH = Quantity("Tooth", "", "Counted from 0 at the centre; empty: the best", low=0, high=500, whole=True)
TEETH = Quantity("Teeth", "", "Places a jaw can be mounted in", low=1, high=500, whole=True)
SERRATION_PITCH = Quantity("Serration pitch", "mm", "Tooth to tooth of the master jaw", above=0, high=20)
TNUT_RADIUS = Quantity("T-nut's outer edge", "mm", "From the axis, jaw in tooth 0 at mid-stroke", above=0, high=2000)
BORED_AT = Quantity("Grips at", "", "Share of the stroke used toward clamped; mid-stroke is 0.5", low=0, high=1)
SMALLEST = Quantity("Smallest piece", "mm", "Measured over the batch", above=0, high=4000)
LARGEST = Quantity("Largest piece", "mm", "Measured over the batch", above=0, high=4000)
JAW_DIAMETER = Quantity("Jaw diameter", "mm", "As bored or turned", above=0, high=4000)
TOUCH_OFF = Quantity("Touch-off X", "mm", "Diameter read, with paper between", above=0, high=4000)
PAPER = Quantity("Paper", "mm", "Thickness of the slip", low=0, high=2)
DAMAGE = Quantity("Deepest mark", "mm", "Per side; 0 for none", low=0, high=20)
WALL_LEFT = Quantity("Wall left", "mm", "Per side, to the last usable size", low=0, high=500)
BENDS_TIMES = Quantity(
    "Bends, against the estimate", "", "Measured by feeler; empty: as estimated", low=0, high=10, places=(2, 2)
)
RING_INNER = Quantity("Inner diameter", "mm", "Free passage", above=0, high=2000)
RING_OUTER = Quantity("Outer diameter", "mm", "Over all", above=0, high=2000)
RING_BAR = Quantity("Pressure limit", "bar", "At the cylinder", above=0, high=400)
RING_RPM = Quantity("Speed limit", "rpm", "With the ring in", above=0, high=20_000)
PLUG_DIAMETER = Quantity("Plug diameter", "mm", "As measured", above=0, high=2000)
WRAP = Quantity("Wrap", "deg", "Of one jaw", above=0, high=180)

# Part and material
PIECES = Quantity("Pieces", "", "Of the run", low=1, high=10_000_000, whole=True)
FINISH = Quantity("Finish Ra", "um", "From the print", above=0, high=100)
MODULUS = Quantity("Modulus", "GPa", "Of the part", above=0, high=1000)
PROOF_STRESS = Quantity("Proof stress", "N/mm2", "Rp0.2: where it begins to yield", above=0, high=5000)
POISSON = Quantity("Poisson's ratio", "", "Of the part", low=0, high=0.5)
KC11 = Quantity("k_c1.1", "N/mm2", "Specific force at h = 1 mm, b = 1 mm", above=0, high=10_000)
MC = Quantity("m_c", "", "Rise of the specific force for thin chips", low=0, high=0.6)
RAKE_REFERENCE = Quantity("Rake of k_c1.1", "deg", "Effective rake of the table's figures", low=-10, high=20)

# Cuts and tools
FEED = Quantity("Feed", "mm/rev", above=0, high=5)
SURFACE_SPEED = Quantity("Surface speed", "m/min", above=0, high=3000)
DEPTH_OF_CUT = Quantity("Depth of cut", "mm", "Per side", above=0, high=50)
CORNER_RADIUS = Quantity("Corner radius", "mm", "Of the insert", low=0, high=20)
RAKE = Quantity("Effective rake", "deg", "Of its edge", low=-30, high=40)
APPROACH = Quantity("Approach angle", "deg", "κ, of the edge to the axis", low=10, high=135)
POINT_ANGLE = Quantity("Point angle", "deg", "Of the drill", low=60, high=180)
FEED_FROM = Quantity("Feed from", "mm/rev", above=0, high=5)
FEED_TO = Quantity("Feed to", "mm/rev", above=0, high=5)
DEPTH_FROM = Quantity("Depth from", "mm", "Per side", low=0, high=50)
DEPTH_TO = Quantity("Depth to", "mm", "Per side", above=0, high=50)
EDGE_WIDTH = Quantity("Blade width", "mm", "Of a groover or a blade", above=0, high=50)
DRIVE_EFFICIENCY = Quantity("Drive efficiency", "", above=0, high=1)
SLOW_BELOW = Quantity("Slow below", "mm", "Diameter from which the slow feed counts", low=0, high=2000)
THREAD_PASSES = Quantity("Passes", "", "Each with the same chip", low=1, high=60, whole=True)
OVERHANG = Quantity("Overhang", "mm", above=0, high=5000)
EDGES = Quantity("Edges", "", "Of one insert", low=1, high=6, whole=True)

TAYLOR_EXPONENT = Quantity("Taylor exponent n", "", "0.25 coated carbide, 0.20 uncoated, 0.12 HSS", low=0.05, high=0.9)
EDGE_CHANGE = Quantity("Edge change takes", "min", "", above=0, high=600)

# How many flats a section has; 0 where it is round.
FLATS = {"turned": 0, "round": 0, "hexagon": 6, "square": 4}
