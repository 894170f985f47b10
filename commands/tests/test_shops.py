"""Shops kept by earlier versions open under this one: runs, verdicts, history and releases as they were.

Every backup of `shops/` is restored. A version that changes what is kept adds one of its own before the change.
"""

import json
import subprocess
from pathlib import Path

import pytest

from commands import keeping, places

SHOPS = sorted((Path(__file__).parent / "shops").glob("*.backup"))


@pytest.fixture(params=SHOPS, ids=[p.stem for p in SHOPS])
def opened(request, own_cluster, data):
    """(name of the shop, what it shows by drawing number) of a restored backup."""
    assert keeping.restore([str(request.param)], own_cluster) == 0
    own_cluster.start()
    env = places.environment(**own_cluster.environment())
    opened = [str(places.PYTHON), "-m", "commands.tests.opened"]
    done = subprocess.run(opened, cwd=places.ROOT, env=env, capture_output=True, text=True, check=False)
    assert done.returncode == 0, done.stderr
    return request.param.stem, json.loads(done.stdout)


# By shop: how runs stood, which were released, the history of LH-2041 from its end, the draft it can be seen back to.
VERDICTS = {
    # Plans called settled then are stopped where they break what a plan must refuse: a grip of which a quarter is kept,
    # a tool in the jaws, a second side held on what no cut makes; or open where a cut has no tool.
    "first": {"LH-1980": "stopped", "LH-2041": "stopped", "LH-2107": "stopped", "LH-2215": "stopped"},
    "before-tools": {"LH-2041": "stopped", "LH-2107": "stopped", "LH-2215": "open"},
    "before-card": dict.fromkeys(("LH-1980", "LH-2041", "LH-2107", "LH-2188", "LH-2215", "LH-2266"), "settled"),
}
VERDICTS["before-waiting"] = VERDICTS["before-card"]
RELEASED = {"first": {"LH-2107", "LH-2215"}, "before-tools": {"LH-2041", "LH-2107", "LH-2215"}}
RELEASED["before-card"] = RELEASED["before-waiting"] = RELEASED["before-tools"]
TOLD = {
    "first": [
        "Rough Spigot: feed 0.401\xa0mm/rev → 0.3\xa0mm/rev",
        "undone: Rough Spigot: feed 0.3\xa0mm/rev → 0.401\xa0mm/rev",
    ],
    "before-tools": [
        "Gauge pressure, side 1, spigot end 24\xa0bar → 21\xa0bar",
        "undone: Gauge pressure, side 1, spigot end 21\xa0bar → 24\xa0bar",
    ],
}


TOLD["before-card"] = [
    "Gauge pressure, side 1, spigot end 24.3\xa0bar → 21\xa0bar, now stopped",
    "undone: Gauge pressure, side 1, spigot end 21\xa0bar → 24.3\xa0bar, now settled",
]
TOLD["before-waiting"] = TOLD["before-card"]
TYPED = {
    "first": {"setups.s1.force.pressure_bar": "25", "part.profile.outside.o1.diameter_mm": "83.95"},
    "before-tools": {},
    "before-card": {},
    "before-waiting": {},
}


def test_a_shop_of_an_earlier_version_opens_with_its_verdicts_history_and_releases(opened):
    name, shop = opened
    assert {n: run["verdict"] for n, run in shop.items()} == VERDICTS[name]
    carrier = shop["LH-2041"]
    assert carrier["history"][::-1][-2:] == TOLD[name]
    # Drafts of the earlier form are told, not shown.
    assert carrier["first"] == (0 if name in ("before-card", "before-waiting") else carrier["revision"])
    released = [(n, r) for n, run in shop.items() for r in run["releases"].values()]
    assert {n for n, _ in released} == RELEASED[name]
    for _, one in released:
        assert one["read"] == one["frozen"]
        assert one["bench"] in one["frozen"].values()
        assert min(one["facts"].values()) > 50
    # What was typed is found under its new place.
    assert carrier["typed"] == TYPED[name]
    # The draft is judged by what a plan must refuse today: what differs from its release is told.
    assert name != "first" or min(one["differs"] for _, one in released) > 0
