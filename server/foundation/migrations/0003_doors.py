"""What a database holds is kept with it; names are one whatever their case; the trail; what was sent, by its key."""

import django.db.models.deletion
import django.db.models.functions.text
from django.conf import settings
from django.db import migrations, models


ROLES = ("owner", "planner", "setter", "operator")


def names_once(apps, _):
    """Of two names that differ in case only, the later one gets a number."""
    Person = apps.get_model("foundation", "Person")
    seen = set()
    for person in Person.objects.order_by("pk"):
        name, number = person.username, 2
        while person.username.lower() in seen:
            person.username, number = f"{name}-{number}", number + 1
        seen.add(person.username.lower())
        person.save(update_fields=["username"])


def what_is_here(apps, _):
    """The demo, where nobody has a password; a real shop where anybody has, in which the demo's people end."""
    Person, Shop = apps.get_model("foundation", "Person"), apps.get_model("foundation", "Shop")
    people = list(Person.objects.all())
    if not people:
        return  # nothing was begun yet
    of_the_demo = [p for p in people if p.username in ROLES and p.role == p.username and p.password.startswith("!")]
    is_demo = len(of_the_demo) == len(people)
    Shop.objects.create(pk=1, kind="demo" if is_demo else "real")
    if not is_demo:
        Person.objects.filter(pk__in=[p.pk for p in of_the_demo]).update(is_active=False)


class Migration(migrations.Migration):
    dependencies = [("auth", "0012_alter_user_first_name_max_length"), ("foundation", "0002_roles")]

    operations = [
        migrations.CreateModel(
            name="Sent",
            fields=[
                ("key", models.UUIDField(primary_key=True, serialize=False)),
                ("said", models.CharField(help_text="Digest of where it was sent and what it said", max_length=64)),
                ("at", models.DateTimeField(auto_now_add=True)),
            ],
        ),
        migrations.CreateModel(
            name="Shop",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("kind", models.CharField(choices=[("demo", "Demo"), ("real", "Real")], max_length=4)),
                ("begun_at", models.DateTimeField(auto_now_add=True)),
            ],
        ),
        migrations.CreateModel(
            name="TrailEntry",
            fields=[
                ("id", models.BigAutoField(auto_created=True, primary_key=True, serialize=False, verbose_name="ID")),
                ("at", models.DateTimeField(auto_now_add=True, db_index=True)),
                ("what", models.CharField(max_length=20)),
                (
                    "name",
                    models.CharField(blank=True, help_text="As it was given, where nobody is signed in", max_length=60),
                ),
                ("about", models.CharField(blank=True, max_length=200)),
                ("address", models.CharField(blank=True, max_length=45)),
            ],
            options={"ordering": ["-pk"]},
        ),
        migrations.AddField(
            model_name="person",
            name="sign_outs",
            field=models.PositiveIntegerField(default=0, help_text="Counted up to end every session there is"),
        ),
        migrations.RunPython(names_once, migrations.RunPython.noop),
        migrations.AddConstraint(
            model_name="person",
            constraint=models.UniqueConstraint(
                django.db.models.functions.text.Lower("username"), name="person_name_once"
            ),
        ),
        migrations.AddField(
            model_name="sent",
            name="by",
            field=models.ForeignKey(
                on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.AddConstraint(
            model_name="shop", constraint=models.CheckConstraint(condition=models.Q(("pk", 1)), name="shop_only_one")
        ),
        migrations.AddField(
            model_name="trailentry",
            name="by",
            field=models.ForeignKey(
                null=True, on_delete=django.db.models.deletion.PROTECT, related_name="+", to=settings.AUTH_USER_MODEL
            ),
        ),
        migrations.RunPython(what_is_here, migrations.RunPython.noop),
    ]
