"""The route as files for a spreadsheet."""

import csv
import io


def sheet(person, run, of):
    answer = person.get(f"/api/runs/{run.pk}/route-{of}.csv")
    return answer, list(csv.reader(io.StringIO(answer.content.decode())))


def test_tools_and_times_are_files_of_the_draft(planner, demo):
    answer, (head, *rows) = sheet(planner, demo, "tools")
    assert answer.status_code == 200
    assert answer["Content-Type"].startswith("text/csv")
    assert head == ["turret", "station", "offset", "tool", "operations"]
    assert [r[1] for r in rows] == sorted((r[1] for r in rows), key=int)
    _, (head, *lines) = sheet(planner, demo, "times")
    assert (head[1], lines[0][1]) == ("operation", "door, unload and load, chuck")
    assert all(float(line[-1]) > 0 for line in lines)


def test_a_plan_without_a_route_says_why_and_an_operator_is_not_sent_a_drafts(planner, operator, demo):
    planner.edit(demo, "part.quantity", text="")
    answer = planner.get(f"/api/runs/{demo.pk}/route-times.csv")
    assert (answer.status_code, answer.json()["title"]) == (409, "There is no route yet: quantity missing.")
    assert operator.get(f"/api/runs/{demo.pk}/route-times.csv").status_code == 403
