"""A few of the requests that nobody means; `./anvil fuzz` sends many."""

import subprocess
import sys

from commands.places import ROOT, environment


def test_a_few_odd_requests_are_answered_by_no_failure(server, run):
    done = subprocess.run(
        [sys.executable, "-m", "bench.fuzz", "300", "--seed", "3"],
        cwd=ROOT,
        env=environment(NOBLE_ANVIL_URL=server.url),
        capture_output=True,
        text=True,
        timeout=120,
        check=False,
    )
    assert done.returncode == 0, done.stdout + done.stderr[-3000:]
    assert "None was answered by a failure" in done.stdout
