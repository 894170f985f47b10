"""Time in cut of an operation (handbook §7)."""

from __future__ import annotations

import math

from calc.cuts.part_off import cross_minutes

RUN_IN_MM = 2.0  # typical: the tool starts this far before the metal
THREAD_RUN_IN = 3.0  # pitches: the slide must be at speed before the thread begins


def along_minutes(
    length_mm: float,
    start_mm: float,
    depth_mm: float,
    passes: int,
    speed_m_min: float | None,
    rpm: float | None,
    feed_mm_rev: float,
    cap_rpm: float,
) -> float:
    """Time [min] of passes along the axis, each at the diameter it leaves.

    Parameters: length [mm] with run-in added here; start diameter [mm]; depth [mm per side], below 0 inside;
    constant surface speed [m/min], or rpm; feed [mm/rev]; cap [rpm].

    >>> round(along_minutes(48, 100, 0, 1, 157.0796, None, 0.2, 5000), 4)
    0.5

    Reference: L/(f n), each pass.
    """
    total = 0.0
    for i in range(1, passes + 1):
        d = max(start_mm - 2 * depth_mm * i, 1e-6)
        n = min(cap_rpm, rpm if rpm is not None else 1000 * (speed_m_min or 0.0) / (math.pi * d))
        total += (length_mm + RUN_IN_MM) / (feed_mm_rev * n)
    return total


def across_minutes(
    outer_mm: float,
    inner_mm: float,
    passes: int,
    speed_m_min: float | None,
    rpm: float | None,
    feed_mm_rev: float,
    cap_rpm: float,
) -> float:
    """Time [min] of passes across the axis, from a diameter to a smaller one [mm].

    >>> round(across_minutes(80, 0, 2, 200, None, 0.2, 3000), 3)
    0.269
    """
    if rpm is not None:
        return passes * (outer_mm - inner_mm) / 2 / (feed_mm_rev * min(rpm, cap_rpm))
    assert speed_m_min is not None
    return passes * cross_minutes(outer_mm, inner_mm, speed_m_min, feed_mm_rev, cap_rpm)


def thread_minutes(length_mm: float, pitch_mm: float, passes: int, rpm: float) -> float:
    """Time [min] of a thread's passes.

    >>> round(thread_minutes(20, 1.5, 6, 1000), 4)
    0.098
    """
    return passes * (length_mm + THREAD_RUN_IN * pitch_mm) / (pitch_mm * rpm)
