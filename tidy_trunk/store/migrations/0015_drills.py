"""Drills that were played on this machine: the rig, the fault, what was looked at, what was answered."""

UP = """
create table drill (
    id uuid primary key,
    seq bigint generated always as identity,
    seed integer not null,
    body jsonb not null,
    begun timestamp with time zone not null,
    ended timestamp with time zone
)
"""

DOWN = "drop table drill"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
