"""Shelf rows become the core's values, and constraints hold in PostgreSQL itself."""

import pytest
from django.db import IntegrityError, transaction
from django.db.models import ProtectedError

from calc.data.materials import starting_materials
from server.apps.demo.actions import begin
from server.apps.runs.models import Run
from server.apps.shelf import convert
from server.apps.shelf.actions.load import load_starting_materials, renew
from server.apps.shelf.models import ChartPoint, Chuck, JawBlank, Machine, Material
from server.apps.shelf.queries import snapshot
from server.foundation.models import Shop
from server.foundation.problems import Conflict


def test_rows_become_values(demo):
    chuck = convert.value(Chuck.objects.get(key="lathe-3-chuck"))
    assert [p.pressure_bar for p in chuck.force.chart] == [4, 10, 20, 30, 32]
    piston = convert.value(Chuck.objects.get(key="lathe-5-chuck"))
    assert (piston.force.chart, piston.force.piston_area_mm2) == ((), 16_200)
    assert convert.value(JawBlank.objects.get(key="l3-steel-50")).face_radius_mm == 20
    assert convert.value(Material.objects.get(key="c45")).kc11 == 2220


def test_every_starting_material_is_a_value_the_core_takes(demo):
    assert Material.objects.count() == len(starting_materials()) == 18
    for row in Material.objects.all():
        assert convert.value(row).name == row.name


def test_a_shop_of_its_own_starts_with_the_materials_and_gets_them_once(db):
    assert load_starting_materials() == 18
    Material.objects.filter(key="pom-c").delete()
    assert load_starting_materials() == 0
    assert all("kc11" in m.typical and "name" not in m.typical for m in Material.objects.all())


def test_what_a_run_uses_cannot_be_deleted(demo):
    for row in (
        Machine.objects.get(key="lathe-3"),
        Material.objects.get(key="1-4462"),
        Chuck.objects.get(key="lathe-3-chuck"),
    ):
        with pytest.raises(ProtectedError):
            row.delete()


def test_constraints_hold_in_the_database(demo):
    chuck = Chuck.objects.get(key="lathe-3-chuck")
    for make in (
        lambda: ChartPoint.objects.create(chuck=chuck, pressure_bar=10, grip_n=1),
        lambda: Machine.objects.create(key="z", name="z", max_rpm=0, power_kw=1, torque_nm=1, turret_stations=1),
        lambda: Material.objects.filter(key="c45").update(iso_group="X"),
        lambda: Run.objects.filter(pk=demo.pk).update(units="cubit"),
    ):
        with pytest.raises(IntegrityError), transaction.atomic():
            make()


def test_a_shop_is_begun_once_and_stays_what_it_is(demo):
    for kind in ("demo", "real"):
        with pytest.raises(Conflict):
            begin(kind)
    assert Run.objects.count() == 2
    assert Shop.objects.get().kind == "demo"


def test_a_change_of_the_shelf_is_seen_at_the_next_plan(demo):
    before = snapshot.current()
    assert snapshot.current() is before
    chuck = Chuck.objects.get(key="lathe-3-chuck")
    ChartPoint.objects.filter(chuck=chuck, pressure_bar=30).update(grip_n=102_000)
    renew()
    after = snapshot.current()
    assert after is not before
    assert after.chucks[chuck.pk].force.chart[-2].grip_n == 102_000
