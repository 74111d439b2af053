"""Ear training on this machine: what was listened for, and what was answered."""

UP = """
create table ear_session (
    id uuid primary key,
    seq bigint generated always as identity,
    task text not null,
    seed integer not null,
    who text not null,
    answers jsonb not null,
    threshold_db double precision,
    begun timestamp with time zone not null
)
"""

DOWN = "drop table ear_session"


def up(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(UP)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
