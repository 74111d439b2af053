"""Jobs and their revisions."""

UP = """
create table job (
    id uuid primary key,
    name text not null,
    head integer not null,
    created timestamp with time zone not null
);
create table revision (
    job_id uuid not null references job (id) on delete cascade,
    number integer not null,
    sentence text not null,
    content integer not null,
    before integer,
    redo jsonb not null,
    document jsonb,
    created timestamp with time zone not null,
    primary key (job_id, number)
);
"""

DOWN = "drop table revision; drop table job;"


def up(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, UP.split(";")):
        db.execute_sql(statement)


def down(migrator, db):  # type: ignore[no-untyped-def]
    for statement in filter(str.strip, DOWN.split(";")):
        db.execute_sql(statement)
