"""What stands on the shelf: machines, chucks, jaw blanks, materials. Ranges are the core's, checked on use."""

from __future__ import annotations

import uuid

from django.conf import settings
from django.db import models
from django.db.models import Q

from server.foundation.models import Revised


class ShelfState(models.Model):
    """One row that tells one state of the shelf from the next: every change of the shelf renews it."""

    token = models.UUIDField(default=uuid.uuid4)


class Item(Revised):
    """Something with a stable short key and a name."""

    key = models.SlugField(max_length=60, unique=True)
    name = models.CharField(max_length=80)
    typical = models.JSONField(default=list, help_text="Fields whose figures are typical, not the shop's own")

    class Meta:
        abstract = True
        ordering = ["name"]

    def __str__(self) -> str:
        return self.name


class Machine(Item):
    """A lathe."""

    max_rpm = models.FloatField()
    power_kw = models.FloatField()
    torque_nm = models.FloatField(help_text="Below base speed")
    thread_feed_m_min = models.FloatField(null=True, blank=True)
    swing_mm = models.FloatField(null=True, blank=True)
    turning_length_mm = models.FloatField(null=True, blank=True)
    spindle_load_kg = models.FloatField(null=True, blank=True)
    spindle_bore_mm = models.FloatField(null=True, blank=True)
    centre_n = models.FloatField(null=True, blank=True)
    spindle_length_mm = models.FloatField(null=True, blank=True)
    feeder_mm = models.FloatField(null=True, blank=True)
    feeder_length_mm = models.FloatField(null=True, blank=True)
    feeder_rpm = models.FloatField(null=True, blank=True)
    remnant_mm = models.FloatField(null=True, blank=True)
    second_rpm = models.FloatField(null=True, blank=True)
    second_kw = models.FloatField(null=True, blank=True)
    second_nm = models.FloatField(null=True, blank=True)
    turret_stations = models.PositiveSmallIntegerField()
    shank_mm = models.FloatField(null=True, blank=True)
    bar_seat_mm = models.FloatField(null=True, blank=True)
    turrets = models.PositiveSmallIntegerField(default=1)
    turret_takes = models.CharField(max_length=10, default="any", choices=[("any", "any"), ("alternate", "alternate")])
    turret_radius_mm = models.FloatField(null=True, blank=True)
    turret_turns = models.CharField(max_length=10, default="both", choices=[("both", "both ways"), ("one", "one way")])
    index_first_s = models.FloatField(default=0.4)
    index_further_s = models.FloatField(default=0.1)
    turret = models.CharField(max_length=20, blank=True)
    rapid_x_m_min = models.FloatField(default=20.0)
    rapid_z_m_min = models.FloatField(default=24.0)
    acceleration_m_s2 = models.FloatField(default=3.0)
    spindle_s = models.FloatField(default=3.0)
    change_x_mm = models.FloatField(default=100.0)
    change_z_mm = models.FloatField(default=150.0)
    feed_word = models.CharField(max_length=8, blank=True)
    clamp_word = models.CharField(max_length=8, blank=True)
    program_word = models.CharField(max_length=8, blank=True)
    end_word = models.CharField(max_length=8, blank=True)

    class Meta(Item.Meta):
        constraints = [
            models.CheckConstraint(
                condition=Q(max_rpm__gt=0, power_kw__gt=0, torque_nm__gt=0), name="machine_figures_positive"
            )
        ]


class Material(Item):
    """A work material; figures are typical until the shop replaces them."""

    iso_group = models.CharField(max_length=1)
    kc11 = models.FloatField()
    mc = models.FloatField()
    speed_low_m_min = models.FloatField()
    speed_high_m_min = models.FloatField()
    density_kg_dm3 = models.FloatField()
    modulus_gpa = models.FloatField()
    poisson = models.FloatField()
    proof_n_mm2 = models.FloatField(null=True, blank=True)
    expansion_um_m_k = models.FloatField()
    rake_reference_deg = models.FloatField(default=6)
    friction_multiplier = models.FloatField(default=1)

    class Meta(Item.Meta):
        constraints = [
            models.CheckConstraint(condition=Q(iso_group__in=list("PMKNSH")), name="material_group_known"),
            models.CheckConstraint(
                condition=Q(speed_high_m_min__gte=models.F("speed_low_m_min")), name="material_window_rises"
            ),
        ]


class Chuck(Item):
    """A power chuck and what its book says. Force comes from chart points, or from the actuator's figures."""

    machine = models.ForeignKey(Machine, on_delete=models.PROTECT, related_name="chucks")
    jaws = models.PositiveSmallIntegerField(default=3)
    max_grip_n = models.FloatField()
    max_pressure_bar = models.FloatField()
    max_rpm = models.FloatField()
    reference_height_mm = models.FloatField()
    guide_length_mm = models.FloatField()
    guide_friction = models.FloatField(default=0.08)
    piston_area_mm2 = models.FloatField(null=True, blank=True)
    force_ratio = models.FloatField(null=True, blank=True)
    efficiency = models.FloatField(default=1)
    max_draw_n = models.FloatField(null=True, blank=True)
    body_diameter_mm = models.FloatField()
    body_length_mm = models.FloatField()
    guide_to_jaw_base_mm = models.FloatField()
    jaw_stroke_mm = models.FloatField()
    serration_pitch_mm = models.FloatField()
    heaviest_jaw_kg = models.FloatField(null=True, blank=True)
    master_mass_kg = models.FloatField(null=True, blank=True)
    master_radius_mm = models.FloatField(null=True, blank=True)
    bolt_size = models.CharField(max_length=20, blank=True)
    bolt_torque_steel_nm = models.FloatField(null=True, blank=True)
    bolt_torque_aluminium_nm = models.FloatField(null=True, blank=True)
    bore_mm = models.FloatField(null=True, blank=True)
    mass_kg = models.FloatField(null=True, blank=True)
    teeth = models.PositiveSmallIntegerField(null=True, blank=True)
    tnut_radius_0_mm = models.FloatField(null=True, blank=True)
    half_angle_deg = models.FloatField(null=True, blank=True, help_text="Of a collet chuck's cone")
    cone_friction = models.FloatField(default=0.12)
    closes = models.CharField(max_length=10, choices=[("jaws", "jaws"), ("collet", "a collet")], default="jaws")
    spindle = models.CharField(max_length=10, choices=[("main", "main"), ("second", "second")], default="main")
    draws = models.CharField(max_length=10, choices=[("back", "back"), ("dead", "dead length")], default="back")
    nose_mm = models.FloatField(null=True, blank=True)
    nose_length_mm = models.FloatField(null=True, blank=True)


class ChartPoint(models.Model):
    """One point of a chuck's chart of grip against pressure."""

    chuck = models.ForeignKey(Chuck, on_delete=models.CASCADE, related_name="chart")
    pressure_bar = models.FloatField()
    grip_n = models.FloatField()

    class Meta:
        ordering = ["pressure_bar"]
        constraints = [models.UniqueConstraint(fields=["chuck", "pressure_bar"], name="chart_point_once")]


class JawBlank(Item):
    """A top jaw as it comes, soft or hard, and the chucks it fits."""

    metal = models.CharField(max_length=20, choices=[("steel", "steel"), ("aluminium", "aluminium")])
    kind = models.CharField(max_length=10, choices=[(k, k) for k in ("block", "pie", "hard")], default="block")
    width_mm = models.FloatField(null=True, blank=True)
    angle_deg = models.FloatField(null=True, blank=True)
    length_mm = models.FloatField()
    height_mm = models.FloatField()
    density_kg_dm3 = models.FloatField()
    bolt_head_mm = models.FloatField(help_text="Top of the bolt heads above the jaw base")
    face_radius_mm = models.FloatField(help_text="Inner end in tooth 0, at mid-stroke")
    step_mm = models.FloatField(null=True, blank=True, help_text="Of a hard jaw")
    seat_mm = models.FloatField(null=True, blank=True, help_text="Of a hard jaw")
    chucks = models.ManyToManyField(Chuck, related_name="blanks")

    class Meta(Item.Meta):
        constraints = [models.CheckConstraint(condition=Q(metal__in=["steel", "aluminium"]), name="blank_metal_known")]


class Collet(Item):
    """A collet, and the chucks that close it."""

    form = models.CharField(max_length=10, choices=[(f, f) for f in ("round", "hexagon", "square")], default="round")
    nominal_mm = models.FloatField(help_text="The largest bar it takes")
    range_mm = models.FloatField(help_text="Closes by, on diameter")
    bearing_mm = models.FloatField()
    face = models.CharField(max_length=10, choices=[("smooth", "smooth"), ("serrated", "serrated")], default="smooth")
    max_grip_n = models.FloatField(null=True, blank=True)
    runout_mm = models.FloatField(default=0.02)
    chucks = models.ManyToManyField(Chuck, related_name="collets")

    class Meta(Item.Meta):
        constraints = [
            models.CheckConstraint(condition=Q(range_mm__lt=models.F("nominal_mm")), name="collet_closes_on_something")
        ]


class Ring(Item):
    """A boring ring; without its limits it is never used."""

    inner_mm = models.FloatField()
    outer_mm = models.FloatField()
    max_bar = models.FloatField(null=True, blank=True)
    max_rpm = models.FloatField(null=True, blank=True)
    chucks = models.ManyToManyField(Chuck, related_name="rings")

    class Meta(Item.Meta):
        constraints = [models.CheckConstraint(condition=Q(inner_mm__lt=models.F("outer_mm")), name="ring_has_metal")]


class Plug(Item):
    """A boring plug."""

    diameter_mm = models.FloatField()
    chucks = models.ManyToManyField(Chuck, related_name="plugs")

    class Meta(Item.Meta):
        constraints = [models.CheckConstraint(condition=Q(diameter_mm__gt=0), name="plug_has_size")]


class JawSet(Item):
    """One set of bored jaws: an individual with a life."""

    chuck = models.ForeignKey(Chuck, on_delete=models.PROTECT, related_name="jaw_sets")
    blank = models.ForeignKey(JawBlank, on_delete=models.PROTECT, related_name="jaw_sets")
    side = models.CharField(max_length=2, choices=[("od", "outside"), ("id", "inside")])
    bored_mm = models.FloatField()
    depth_mm = models.FloatField()
    wall_left_mm = models.FloatField()
    tooth = models.PositiveSmallIntegerField(null=True, blank=True)
    damage_mm = models.FloatField(default=0)
    bends_times = models.FloatField(null=True, blank=True, help_text="Against the estimate, by feeler")
    numbers = models.CharField(max_length=40, blank=True)
    stored = models.CharField(max_length=60, blank=True)
    lent_to = models.CharField(max_length=60, blank=True)

    class Meta(Item.Meta):
        constraints = [models.CheckConstraint(condition=Q(side__in=["od", "id"]), name="jaw_set_side_known")]


class Tool(Item):
    """A tool of any kind: insert, holder, drill, blade. Its figures are those of the core's declaration of the kind.

    One table for all: which kinds there are and what each has is declared once, in the core, and checked there.
    """

    kind = models.CharField(max_length=20, db_index=True)
    figures = models.JSONField(default=dict, help_text="By the core's declaration of the kind, without key and name")


class JawSetEvent(models.Model):
    """Something that happened to a jaw set. Never altered."""

    jaw_set = models.ForeignKey(JawSet, on_delete=models.CASCADE, related_name="life")
    what = models.CharField(max_length=10)
    on = models.DateField()
    size_mm = models.FloatField(null=True, help_text="Bored to, after it")
    removal_mm = models.FloatField(null=True, help_text="Per side")
    note = models.CharField(max_length=120, blank=True)
    by = models.ForeignKey(settings.AUTH_USER_MODEL, null=True, on_delete=models.PROTECT)

    class Meta:
        ordering = ["-on", "-pk"]
        constraints = [
            models.CheckConstraint(
                condition=Q(what__in=["bored", "recut", "refit", "lent", "back", "damaged"]), name="jaw_set_event_known"
            )
        ]


class ShelfChange(models.Model):
    """One change of a shelf item: its history. Never altered."""

    kind = models.CharField(max_length=20)
    item_key = models.CharField(max_length=60)
    revision = models.PositiveIntegerField(help_text="Of the item, after this change")
    changes = models.JSONField(help_text="Field -> [old, new] in core units")
    by = models.ForeignKey(settings.AUTH_USER_MODEL, on_delete=models.PROTECT)
    at = models.DateTimeField(auto_now_add=True)

    class Meta:
        ordering = ["-at", "-pk"]
        indexes = [models.Index(fields=["kind", "item_key", "revision"], name="shelf_change_item")]


# The table of each kind; tools of every kind share one.
OF_KIND: dict[str, type[Item]] = {
    "machine": Machine,
    "chuck": Chuck,
    "collet": Collet,
    "jaw_blank": JawBlank,
    "jaw_set": JawSet,
    "ring": Ring,
    "plug": Plug,
    "material": Material,
}
