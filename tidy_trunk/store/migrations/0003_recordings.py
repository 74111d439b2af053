"""Recordings that were measured: what was found, not the sound itself."""

UP = """
create table recording (
    id uuid primary key,
    job_id uuid not null references job (id) on delete cascade,
    name text not null,
    size bigint not null,
    asked jsonb not null,
    state text not null,
    progress double precision not null default 0,
    message text not null default '',
    result jsonb,
    created timestamp with time zone not null
);
create index recording_of_job on recording (job_id, created);
"""

DOWN = "drop table recording;"


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    db.execute_sql(DOWN)
