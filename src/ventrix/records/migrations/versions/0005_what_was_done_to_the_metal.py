"""what was done to the metal

Revision 0005, after 0004. Models of today are not imported here.
"""

import json

import sqlalchemy as sa
from alembic import op

revision = "0005"
down_revision = "0004"


def upgrade() -> None:
    op.create_table(
        "binned",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("noun", sa.String(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("parent_id", sa.String(), nullable=False),
        sa.Column("at", sa.Integer(), nullable=False),
        sa.Column("document", sa.JSON(), nullable=False),
        sa.Column("reason", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_binned_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_binned")),
    )
    with op.batch_alter_table("binned", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_binned_job_id"), ["job_id"], unique=False)

    op.create_table(
        "chamber",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("cylinder", sa.Integer(), nullable=False),
        sa.Column("head_id", sa.String(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_chamber_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_chamber")),
    )
    with op.batch_alter_table("chamber", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_chamber_job_id"), ["job_id"], unique=False)

    op.create_table(
        "head",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("casting", sa.String(), nullable=False),
        sa.Column("milled", sa.Double(), nullable=True),
        sa.Column("flatness", sa.Double(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_head_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_head")),
    )
    with op.batch_alter_table("head", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_head_job_id"), ["job_id"], unique=False)

    op.create_table(
        "my_lift",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("lift", sa.Double(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_my_lift_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_my_lift")),
    )
    with op.batch_alter_table("my_lift", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_my_lift_job_id"), ["job_id"], unique=False)

    op.create_table(
        "seat",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("recipe", sa.String(), nullable=False),
        sa.Column("version", sa.Integer(), nullable=False),
        sa.Column("angles", sa.JSON(), nullable=False),
        sa.Column("widths", sa.JSON(), nullable=False),
        sa.Column("radius", sa.Double(), nullable=True),
        sa.Column("contact", sa.Double(), nullable=True),
        sa.Column("contact_angle", sa.Double(), nullable=True),
        sa.Column("margin", sa.Double(), nullable=True),
        sa.Column("throat", sa.Double(), nullable=True),
        sa.Column("sunk", sa.Double(), nullable=True),
        sa.Column("insert", sa.Boolean(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_seat_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_seat")),
    )
    with op.batch_alter_table("seat", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_seat_job_id"), ["job_id"], unique=False)

    op.create_table(
        "swirl_wish",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("low", sa.Double(), nullable=False),
        sa.Column("high", sa.Double(), nullable=False),
        sa.Column("swirl", sa.Double(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_swirl_wish_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_swirl_wish")),
    )
    with op.batch_alter_table("swirl_wish", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_swirl_wish_job_id"), ["job_id"], unique=False)

    op.create_table(
        "fault",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("kind", sa.String(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("side", sa.String(), nullable=True),
        sa.Column("along", sa.Double(), nullable=True),
        sa.Column("across", sa.Double(), nullable=False),
        sa.Column("from_hour", sa.Double(), nullable=True),
        sa.Column("to_hour", sa.Double(), nullable=True),
        sa.Column("size", sa.Double(), nullable=True),
        sa.Column("state", sa.String(), nullable=False),
        sa.Column("seen_at_cut", sa.Integer(), nullable=False),
        sa.Column("gone_at_cut", sa.Integer(), nullable=True),
        sa.Column("photo", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("port_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["port_id"], ["port.id"], name=op.f("fk_fault_port_id_port"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_fault")),
    )
    with op.batch_alter_table("fault", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_fault_port_id"), ["port_id"], unique=False)

    op.create_table(
        "tube",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("side", sa.String(), nullable=True),
        sa.Column("size", sa.Double(), nullable=True),
        sa.Column("adhesive", sa.String(), nullable=False),
        sa.Column("tested", sa.Boolean(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("note", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("cut_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(["cut_id"], ["cut.id"], name=op.f("fk_tube_cut_id_cut"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_tube")),
    )
    with op.batch_alter_table("tube", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_tube_cut_id"), ["cut_id"], unique=False)

    op.create_table(
        "work",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("place", sa.String(), nullable=False),
        sa.Column("side", sa.String(), nullable=True),
        sa.Column("from_hour", sa.Double(), nullable=True),
        sa.Column("to_hour", sa.Double(), nullable=True),
        sa.Column("depth", sa.Double(), nullable=True),
        sa.Column("reach", sa.Double(), nullable=True),
        sa.Column("until", sa.String(), nullable=False),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("operation_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(
            ["operation_id"], ["operation.id"], name=op.f("fk_work_operation_id_operation"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_work")),
    )
    with op.batch_alter_table("work", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_work_operation_id"), ["operation_id"], unique=False)

    op.create_table(
        "correction",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("extra", sa.JSON(), nullable=False),
        sa.Column("what", sa.String(), nullable=False),
        sa.Column("was", sa.String(), nullable=False),
        sa.Column("became", sa.String(), nullable=False),
        sa.Column("reason", sa.String(), nullable=False),
        sa.Column("date", sa.String(), nullable=True),
        sa.Column("position", sa.Integer(), nullable=False),
        sa.Column("flow_run_id", sa.String(), nullable=False),
        sa.ForeignKeyConstraint(
            ["flow_run_id"], ["flow_run.id"], name=op.f("fk_correction_flow_run_id_flow_run"), ondelete="CASCADE"
        ),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_correction")),
    )
    with op.batch_alter_table("correction", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_correction_flow_run_id"), ["flow_run_id"], unique=False)

    op.create_table(
        "act",
        sa.Column("id", sa.String(), nullable=False),
        sa.Column("job_id", sa.String(), nullable=False),
        sa.Column("number", sa.Integer(), nullable=False),
        sa.Column("name", sa.String(), nullable=False),
        sa.Column("changes", sa.JSON(), nullable=False),
        sa.ForeignKeyConstraint(["job_id"], ["job.id"], name=op.f("fk_act_job_id_job"), ondelete="CASCADE"),
        sa.PrimaryKeyConstraint("id", name=op.f("pk_act")),
    )
    with op.batch_alter_table("act", schema=None) as batch_op:
        batch_op.create_index(batch_op.f("ix_act_job_id"), ["job_id"], unique=False)

    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.add_column(sa.Column("kinds", sa.JSON(), server_default='["port"]', nullable=False))
        batch_op.add_column(sa.Column("valve_ids", sa.JSON(), server_default="[]", nullable=False))
        batch_op.add_column(sa.Column("seat_ids", sa.JSON(), server_default="[]", nullable=False))
    _kinds_from_kind()
    with op.batch_alter_table("flow_run", schema=None) as batch_op:
        batch_op.add_column(sa.Column("stands_for_port_ids", sa.JSON(), server_default="[]", nullable=False))

    with op.batch_alter_table("job", schema=None) as batch_op:
        batch_op.add_column(sa.Column("use", sa.String(), nullable=True))

    _works_from_places()
    with op.batch_alter_table("operation", schema=None) as batch_op:
        batch_op.add_column(sa.Column("stage", sa.String(), server_default="", nullable=False))
        batch_op.drop_column("depth")
        batch_op.drop_column("places")

    with op.batch_alter_table("port", schema=None) as batch_op:
        batch_op.add_column(sa.Column("head_id", sa.String(), nullable=True))
        batch_op.add_column(sa.Column("position_on_head", sa.Integer(), nullable=True))

    with op.batch_alter_table("pour", schema=None) as batch_op:
        batch_op.add_column(sa.Column("chamber_id", sa.String(), nullable=True))
        batch_op.alter_column("cut_id", existing_type=sa.VARCHAR(), nullable=True)
        batch_op.create_index(batch_op.f("ix_pour_chamber_id"), ["chamber_id"], unique=False)
        batch_op.create_foreign_key(
            batch_op.f("fk_pour_chamber_id_chamber"), "chamber", ["chamber_id"], ["id"], ondelete="CASCADE"
        )

    with op.batch_alter_table("trial", schema=None) as batch_op:
        batch_op.add_column(sa.Column("valve_ids", sa.JSON(), server_default="[]", nullable=False))

    with op.batch_alter_table("valve", schema=None) as batch_op:
        batch_op.add_column(sa.Column("back_cut_width", sa.Double(), nullable=True))

    with op.batch_alter_table("wall_reading", schema=None) as batch_op:
        batch_op.add_column(sa.Column("behind_port_id", sa.String(), nullable=True))

    _chambers_from_cuts()
    with op.batch_alter_table("cut", schema=None) as batch_op:
        batch_op.drop_column("kind")
        batch_op.drop_column("chamber_volume")


def _kinds_from_kind() -> None:
    """A cut had one kind; it has a list of them."""
    cut = sa.table("cut", sa.column("id"), sa.column("kind"), sa.column("kinds"))
    connection = op.get_bind()
    for kind in connection.execute(sa.select(cut.c.kind).distinct()).scalars().all():
        connection.execute(cut.update().where(cut.c.kind == kind).values(kinds=json.dumps([kind])))


def _works_from_places() -> None:
    """An operation had places and one depth; it has a work for each place, of that depth."""
    operation = sa.table("operation", sa.column("id"), sa.column("places"), sa.column("depth"))
    names = ("id", "extra", "place", "depth", "until", "position", "operation_id")
    work = sa.table("work", *(sa.column(name) for name in names))
    connection = op.get_bind()
    rows = connection.execute(sa.select(operation.c.id, operation.c.places, operation.c.depth)).all()
    for id_, text, depth in rows:
        places = json.loads(text) if isinstance(text, str) else text
        if not places and depth is None:
            continue
        for i, place in enumerate(places or [""], 1):
            values = (f"{id_}-{i}", "{}", place, depth, "", i - 1, id_)
            connection.execute(work.insert().values(dict(zip(names, values, strict=True))))


def _chambers_from_cuts() -> None:
    """A chamber's volume stood at each port's cut; it is poured once a cylinder. Where two disagree, both are kept as
    pours, each saying where it stood."""
    connection = op.get_bind()
    rows = connection.execute(
        sa.text(
            "SELECT port.job_id, port.name, port.cylinder, cut.id, cut.number, cut.date, cut.chamber_volume "
            "FROM cut JOIN port ON port.id = cut.port_id WHERE cut.chamber_volume IS NOT NULL "
            "ORDER BY port.job_id, port.position, cut.position"
        )
    ).all()
    chamber = sa.table("chamber", *(sa.column(n) for n in ("id", "extra", "cylinder", "head_id", "position", "job_id")))
    names = ("id", "extra", "volume", "how", "date", "position", "chamber_id")
    pour = sa.table("pour", *(sa.column(n) for n in names))
    made: dict[tuple[str, int], list[float]] = {}
    for job_id, name, cylinder, cut_id, number, date, volume in rows:
        last = name.rsplit(" ", 1)[-1]
        which = cylinder or (int(last) if last.isdecimal() and 0 < int(last) <= 48 else 1)
        id_ = f"{job_id}-chamber-{which}"
        if (job_id, which) not in made:
            made[job_id, which] = []
            at = sum(key[0] == job_id for key in made) - 1
            connection.execute(
                chamber.insert().values(id=id_, extra="{}", cylinder=which, head_id=None, position=at, job_id=job_id)
            )
        there = made[job_id, which]
        if volume in there:
            continue
        values = (f"{cut_id}-chamber", "{}", volume, f"{name}, cut {number}", date, len(there), id_)
        connection.execute(pour.insert().values(dict(zip(names, values, strict=True))))
        there.append(volume)
