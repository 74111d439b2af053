"""The log of the day: one row for each tap, only added."""

UP = """
create table log_entry (
    id uuid primary key,
    seq bigint generated always as identity,
    job_id uuid not null references job (id) on delete cascade,
    act text not null,
    take text not null,
    who text not null,
    made timestamp with time zone not null,
    received timestamp with time zone not null,
    body jsonb not null
);
create index log_of_job on log_entry (job_id, seq)
"""

DOWN = "drop table log_entry"


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
